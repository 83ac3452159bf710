import { largestWindow, placeDimensions, wholeOf } from '@inkwell/core/geometry';
import { shippedStyles } from '@inkwell/core/lettering';
import {
  type Dimensions,
  type FrameSettings,
  type Lettering,
  type LetterStyle,
  type Mark,
  type Original,
  type Place,
  type ProjectPosting,
  plainSettings,
} from '@inkwell/core/model';
import type { PictureKey } from './make.ts';

const pen = (id: string): LetterStyle => {
  const known = shippedStyles.find((one) => one.id === id);
  if (!known) throw new Error(`The demo names a style that does not ship: ${id}`);
  return known.style;
};

/** On which pictures the festival's words stand: the others say what they have to say themselves. */
const lettered: readonly PictureKey[] = ['flyers', 'panorama', 'maker'];

/** The festival's title, its date and the workshop's emblem. @param originals those of the demo, as they were taken in */
export function demoLettering(originals: ReadonlyMap<PictureKey, Original>, newId: () => string): Lettering {
  const common = {
    originalIds: lettered.flatMap((key) => originals.get(key)?.id ?? []),
    notOn: ['profile' as const],
    notOnPlaces: [],
    onPieces: 'first' as const,
  };
  const words = { ...common, kind: 'words' as const };
  const logo = originals.get('logo');
  const title = { ...words, id: newId(), name: 'Title', role: 'title' as const, text: 'Autumn kite festival' };
  const date = { ...words, id: newId(), name: 'Date', role: 'line' as const, text: '4 October, on the dunes' };
  return [
    { ...title, short: 'Kites!', wish: 'wherever it is calm', wanted: 0.17, style: pen('broadside') },
    { ...date, short: '4 October', wish: 'under the words before', wanted: 0.07, style: pen('caption') },
    ...(logo
      ? [
          {
            ...common,
            kind: 'emblem' as const,
            id: newId(),
            name: 'Emblem',
            originalId: logo.id,
            picture: {
              sha256: logo.sha256,
              page: logo.page,
              width: logo.width,
              height: logo.height,
              hasAlpha: logo.hasAlpha,
            },
            wish: 'bottom right' as const,
            wanted: 0.2,
            clearSpace: 0.1,
            plate: { colour: '#f4ecd8', opacity: 0.95, rounding: 0.2 },
          },
        ]
      : []),
  ];
}

/** What is said with the pictures of the demo where they are posted. */
export const demoPosting: ProjectPosting = {
  caption: 'Saltmarsh Kites invites you to the dunes: bring a kite, or build one with us in the morning.',
  tags: '#kites #dunes #autumnfestival',
};
/** What is seen on the demo's pictures. */
export const demoAltTexts: Partial<Record<PictureKey, string>> = {
  flyers: 'Five people in coloured coats fly kites on the dunes, the sea behind them.',
  panorama: 'Kites over a long line of dunes in the evening light.',
  maker: 'The kite maker in the workshop, with a kite that is half built.',
  poster: 'Poster of the autumn kite festival on the dunes.',
  snapshot: 'A green and yellow kite lies in the sand.',
};

export const projectName = 'Festival week';
/** How its pictures are finished, but for those that need another finish. */
export const projectFinish = 'crisp';
export const demoFinishes: Partial<Record<PictureKey, string>> = { plan: 'scan', poster: 'plain' };

/** A frame of the demo: where it goes, the centre and span of its window, and its format; composed, and JPEG, where none is given. */
export type DemoFrame = [
  place: string,
  window?: [centreX: number, centreY: number, span: number],
  format?: FrameSettings['format'],
];

/** The settings of a demo frame on its original. */
export function demoSettings(
  [, window, format = 'jpeg']: DemoFrame,
  original: Dimensions,
  place: Place,
): FrameSettings {
  const largest = largestWindow(wholeOf(original), placeDimensions(place, { ...original, trim: null }));
  const [centreX, centreY, span] = window ?? [largest.centreX, largest.centreY, largest.span];
  return { ...plainSettings, window: { ...largest, centreX, centreY, span }, composed: !window, format };
}

const marked = { shape: 'ellipse', role: 'keep', kind: 'face', look: null } as const;
const face = (
  name: string,
  priority: 'must' | 'should',
  [left, top, width, height]: [number, number, number, number],
): DemoMark => ({
  ...marked,
  name,
  priority,
  left,
  top,
  width,
  height,
});
type DemoMark = DistributiveOmit<Mark, 'id'>;
type DistributiveOmit<Union, Key extends PropertyKey> = Union extends unknown ? Omit<Union, Key> : never;

/** What matters on the demo's originals. */
export const demoMarks: Partial<Record<PictureKey, DemoMark[]>> = {
  flyers: [
    face('Flyer in red', 'should', [760, 1870, 280, 460]),
    face('Flyer in green', 'should', [1790, 1980, 280, 420]),
    face('Flyer in yellow', 'must', [2820, 1820, 280, 430]),
    face('Flyer in blue', 'should', [3870, 1920, 280, 400]),
    face('Flyer in plum', 'should', [4920, 1940, 280, 420]),
    { role: 'avoid', name: 'Litter bin', shape: 'rectangle', left: 5570, top: 2920, width: 310, height: 600 },
  ],
};

/**
 * The demo project: some frames composed from the marks, those of the maker from what is seen alone, the others moved by hand. Its
 * originals come in this order.
 */
export const demoFrames: { picture: PictureKey; frames: DemoFrame[] }[] = [
  {
    picture: 'flyers',
    frames: [
      ['sunpane/square-post', [2960, 2100, 3400]],
      ['sunpane/portrait-post', [2960, 2130, 2900]],
      ['sunpane/wide-post'],
      ['sunpane/story', [3180, 2000, 2240]],
      ['pipwire/single-image'],
      ['pipwire/portrait-image', [1420, 2440, 2100]],
      ['pipwire/header'],
      ['pipwire/profile-picture', [2965, 2080, 760]],
      ['candlecast/video-thumbnail'],
      ['candlecast/vertical-clip-cover', [1010, 2330, 1500]],
      ['candlecast/channel-banner', [2960, 2150, 5000]],
      ['hearthring/cover'],
      ['hearthring/event-cover'],
      ['hearthring/link-image', [3250, 2400, 2800]],
    ],
  },
  {
    picture: 'panorama',
    frames: [
      ['sunpane/wide-post', [9700, 1500, 4600]],
      ['pipwire/header', [4600, 1250, 6000]],
      ['candlecast/channel-banner', [5950, 1500, 4800]],
      ['hearthring/cover', [7400, 1500, 6500]],
    ],
  },
  {
    picture: 'maker',
    frames: [
      ['sunpane/portrait-post'],
      ['sunpane/story'],
      ['sunpane/profile-picture'],
      ['pipwire/profile-picture'],
      ['candlecast/channel-picture'],
    ],
  },
  {
    picture: 'poster',
    frames: [
      ['sunpane/portrait-post', [1463, 1951, 2720]],
      ['sunpane/story', [1463, 2000, 2250]],
      ['hearthring/event-cover', [1463, 1750, 2276]],
    ],
  },
  {
    picture: 'plan',
    frames: [
      ['pipwire/single-image', [1600, 1100, 3150], 'png'],
      ['hearthring/link-image', [1150, 1010, 2100]],
    ],
  },
  { picture: 'snapshot', frames: [['candlecast/video-thumbnail', [450, 350, 900]]] },
];
