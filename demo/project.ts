import type { PictureKey } from './make.ts';

export const projectName = 'Festival week';

/** A frame of the demo: where it goes, and its window as centre and span in original pixels. */
export type DemoFrame = [place: string, centreX: number, centreY: number, span: number];

/** The demo project, framed by hand. Its originals come in this order. */
export const demoFrames: { picture: PictureKey; frames: DemoFrame[] }[] = [
  {
    picture: 'flyers',
    frames: [
      ['sunpane/square-post', 2960, 2100, 3400],
      ['sunpane/portrait-post', 2960, 2130, 2900],
      ['sunpane/wide-post', 2850, 2400, 5100],
      ['sunpane/story', 3180, 2000, 2240],
      ['pipwire/single-image', 2800, 2330, 5000],
      ['pipwire/portrait-image', 1420, 2440, 2100],
      ['pipwire/header', 2900, 2400, 4800],
      ['pipwire/profile-picture', 2965, 2080, 760],
      ['candlecast/video-thumbnail', 2500, 2350, 2700],
      ['candlecast/vertical-clip-cover', 1010, 2330, 1500],
      ['candlecast/channel-banner', 2960, 2150, 5000],
      ['hearthring/cover', 2860, 2300, 5000],
      ['hearthring/event-cover', 2900, 2290, 5200],
      ['hearthring/link-image', 3250, 2400, 2800],
    ],
  },
  {
    picture: 'panorama',
    frames: [
      ['sunpane/wide-post', 9700, 1500, 4600],
      ['pipwire/header', 4600, 1250, 6000],
      ['candlecast/channel-banner', 5950, 1500, 4800],
      ['hearthring/cover', 7400, 1500, 6500],
    ],
  },
  {
    picture: 'maker',
    frames: [
      ['sunpane/portrait-post', 1980, 3400, 3900],
      ['sunpane/story', 1960, 3060, 3200],
      ['sunpane/profile-picture', 1930, 2900, 2200],
      ['pipwire/profile-picture', 1930, 2850, 1900],
      ['candlecast/channel-picture', 1930, 3050, 2600],
    ],
  },
  {
    picture: 'poster',
    frames: [
      ['sunpane/portrait-post', 1463, 1951, 2720],
      ['sunpane/story', 1463, 2000, 2250],
      ['hearthring/event-cover', 1463, 1750, 2276],
    ],
  },
  {
    picture: 'plan',
    frames: [
      ['pipwire/single-image', 1600, 1100, 3150],
      ['hearthring/link-image', 1150, 1010, 2100],
    ],
  },
  { picture: 'snapshot', frames: [['candlecast/video-thumbnail', 450, 350, 900]] },
];
