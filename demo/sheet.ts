import { type SheetContent, usualRecheckDays, type VersionWords } from '@inkwell/core/model';

const letter = 'letter of the board, spring';

/** A sheet that the workshop keeps itself, as it was written down first. */
const first: SheetContent = {
  name: 'Marram Board',
  kind: 'notice board of the dune villages',
  checkedOn: '2026-03-28',
  source: letter,
  sureness: 'said by the network',
  recheckDays: usualRecheckDays,
  places: [
    {
      slug: 'notice',
      name: 'Notice',
      purpose: 'post',
      width: 1200,
      height: 900,
      formats: ['jpeg', 'png'],
      limit: { bytes: 2_000_000, unit: 'MB' },
      shape: 'rectangle',
      covered: [{ left: 0, top: 780, width: 420, height: 120, shape: 'rectangle', reason: 'date and village' }],
      shownWidths: [420, 210],
    },
    {
      slug: 'village-banner',
      name: 'Village banner',
      purpose: 'banner',
      width: 1500,
      height: 400,
      formats: ['jpeg', 'png'],
      limit: { bytes: 2_000_000, unit: 'MB' },
      shape: 'rectangle',
      covered: [],
      shownWidths: [750],
    },
    {
      slug: 'badge',
      name: 'Badge',
      purpose: 'profile',
      width: 320,
      height: 320,
      formats: ['png', 'jpeg'],
      limit: { bytes: 200_000, unit: 'kB' },
      shape: 'circle',
      covered: [],
      shownWidths: [64],
    },
  ],
};

/** The same when the board had put up taller notices. */
const second: SheetContent = {
  ...first,
  places: first.places.map((place) =>
    place.slug === 'notice'
      ? {
          ...place,
          height: 1500,
          limit: { bytes: 1_500_000, unit: 'MB' },
          covered: place.covered.map((area) => ({ ...area, top: 1380 })),
          provenance: {
            dimensions: { checkedOn: '2026-10-19', source: 'measured on the new boards', sureness: 'heard' },
            limit: { checkedOn: '2026-10-19', source: 'answer of the board', sureness: 'said by the network' },
          },
        }
      : place,
  ),
};

export const demoSheet = {
  slug: 'own-marram-board',
  versions: [
    { content: first, words: { savedBy: 'Ada', note: 'From the letter of the board' } },
    { content: second, words: { savedBy: 'Ben', note: 'The new boards are taller' } },
  ] satisfies { content: SheetContent; words: VersionWords }[],
};

/** A choice of places that the workshop uses every week. */
export const demoSet = {
  name: 'Weekly clip',
  placeIds: [
    'candlecast/video-thumbnail',
    'candlecast/vertical-clip-cover',
    'sunpane/story',
    'own-marram-board/notice',
  ],
  pattern: '{name}_{place}_{dimensions}',
  finishId: 'crisp',
  lettering: null,
  aim: null,
};
