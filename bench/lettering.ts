import { randomUUID } from 'node:crypto';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { plainTreatment } from '@inkwell/core/finishing';
import { intersection, type Rect } from '@inkwell/core/geometry';
import { frameGround, letterItems, roomIn, setWords, shippedStyles } from '@inkwell/core/lettering';
import { type Item, keepNothing, type Lettering, type LetterStyle, plainSettings } from '@inkwell/core/model';
import { planWithWords, type RenderPlan } from '@inkwell/core/planning';
import { groundOf } from '@inkwell/core/seeing';
import { sampleMark, sampleOriginal } from '@inkwell/core/testing';
import { Fonts } from '@inkwell/server/fonts/fonts.ts';
import { inspect } from '@inkwell/server/imaging/intake/looking/inspect.ts';
import { makeWorkingCopy } from '@inkwell/server/imaging/intake/makeCopy.ts';
import { renderPixels } from '@inkwell/server/imaging/stages/renderPixels.ts';
import { shippedPlaces } from '@inkwell/server/standins/shippedSheets.ts';
import sharp from 'sharp';
import { median } from './inProcess.ts';
import { legibleFrames } from './legibility.ts';
import { Program } from './program.ts';
import { typing } from './typing.ts';

const book = new Fonts(tmpdir()).shipped;
const repeats = 9;
/** One picture takes so little that single rounds say little. */
const renderRepeats = 41;

const everywhere = { originalIds: null, notOn: [], notOnPlaces: [], onPieces: 'first' as const };
const styleOf = (id: string): LetterStyle => {
  const found = shippedStyles.find((one) => one.id === id);
  if (!found) throw new Error(`There is no style ${id}.`);
  return found.style;
};
const words = (name: string, text: string, style: LetterStyle, values: Partial<Item> = {}): Item =>
  ({
    ...everywhere,
    kind: 'words',
    id: randomUUID(),
    name,
    role: 'title',
    text,
    short: '',
    wish: 'wherever it is calm',
    wanted: 0.17,
    style,
    ...values,
  }) as Item;

/** A title, a date, a number and a shape. */
const four = (): Lettering => [
  words('Title', 'Autumn kite festival', styleOf('broadside')),
  words('Date', '4 October, on the dunes', styleOf('caption'), { wish: 'under the words before', wanted: 0.07 }),
  words('Number', '12', styleOf('buoy'), { wish: 'top right', wanted: 0.12 }),
  {
    ...everywhere,
    kind: 'shape',
    id: randomUUID(),
    name: 'Disc',
    form: 'disc',
    colour: '#f2c14e',
    opacity: 1,
    wish: 'bottom right',
    wanted: 0.1,
  },
];

/** A picture's dimensions and ground, with two faces kept and some things that were only seen. */
async function measured(picture: string) {
  const { width, height } = await inspect(picture);
  const { data, info } = await sharp(picture)
    .resize(896, 896, { fit: 'inside' })
    .removeAlpha()
    .toColourspace('srgb')
    .raw()
    .toBuffer({ resolveWithObject: true });
  const ground = groundOf({ data, width: info.width, height: info.height, channels: 3 });
  const face = (left: number) =>
    sampleMark({ id: randomUUID(), kind: 'face', left, top: 1800, width: 300, height: 450 });
  const marks = [face(2800), face(3850)];
  return { original: { ...sampleOriginal({ width, height }), marks }, ground };
}

/** Milliseconds that it takes to plan 40 frames, with four items and without, in turns. */
async function layoutTimes(picture: string): Promise<{ lettered: number; bare: number }> {
  const { original, ground } = await measured(picture);
  const places = [...shippedPlaces()].filter(([, { place }]) => !place.group && place.purpose !== 'profile');
  const frames = Array.from({ length: 40 }, (_, at) => places[at % places.length]).flatMap((one) => (one ? [one] : []));
  const items = four();
  const planAll = (lettering: Lettering) => {
    const from = performance.now();
    for (const [placeId, { place }] of frames) {
      const settings = {
        ...plainSettings,
        window: { centreX: 0, centreY: 0, span: 1, turn: 0, mirror: false },
        format: 'jpeg' as const,
      };
      planWithWords({
        original,
        place,
        settings,
        treatment: plainTreatment,
        keeping: keepNothing,
        lettering: { items: lettering, book, originalId: randomUUID(), placeId, ground },
      });
    }
    return performance.now() - from;
  };
  planAll(items);
  const rounds = Array.from({ length: repeats }, () => ({ lettered: planAll(items), bare: planAll([]) }));
  return { lettered: median(rounds.map((one) => one.lettered)), bare: median(rounds.map((one) => one.bare)) };
}

const meets = (a: Rect, b: Rect) => {
  const { width, height } = intersection(a, b);
  return width > 1e-6 && height > 1e-6;
};

/** A generator of the same numbers every time, 0 up to 1 (mulberry32). */
function steady(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4_294_967_296;
  };
}

interface GridComparison {
  frames: number;
  /** In which the grid finds a free place at legible size, and in how many of those the layout is free. */
  possible: number;
  free: number;
  /** The least and the median of the title's size over the grid's largest. */
  least: number;
  median: number;
}

const titles = [
  'Autumn kite festival on the dunes',
  'Kites!',
  'Donaudampfschifffahrt',
  'مهرجان الطائرات الورقية',
  '秋の凧まつり',
];

/** Titles in made frames with subjects, covered areas and masks, against all places and sizes of a fine grid. */
function compareWithGrid(frames = 300): GridComparison {
  const random = steady(16);
  const shapes = [
    [1080, 1080, 'rectangle'],
    [1080, 1350, 'rectangle'],
    [1080, 1920, 'rectangle'],
    [1280, 720, 'rectangle'],
    [1500, 500, 'rectangle'],
    [800, 800, 'circle'],
  ] as const;
  const ground = frameGround(
    null,
    { centreX: 0, centreY: 0, span: 1, turn: 0, mirror: false },
    { left: 0, top: 0, width: 1, height: 1 },
    1,
    { width: 1, height: 1 },
  );
  const found = { possible: 0, free: 0 };
  const shares: number[] = [];
  for (let at = 0; at < frames; at += 1) {
    const [width, height, shape] = shapes[at % shapes.length] ?? shapes[0];
    const closed = Array.from({ length: 1 + Math.floor(random() * 5) }, () => ({
      left: random() * width * 0.9,
      top: random() * height * 0.9,
      width: width * (0.08 + random() * 0.35),
      height: height * (0.08 + random() * 0.35),
    }));
    const box = { left: 0, top: 0, width, height };
    const room = roomIn(box, { shape }, 0, closed, []);
    const style = styleOf(['broadside', 'board', 'caption'][at % 3] ?? 'broadside');
    const title = words('Title', titles[at % titles.length] ?? '', style, { wanted: 0.2 });
    const scale = width / 320;
    const frame = {
      originalId: randomUUID(),
      place: { id: 'made/place', purpose: 'post' as const },
      pieces: [{ rect: box, room }],
      whole: null,
      ground,
      subject: null,
      scale,
    };
    const laid = letterItems([title], {}, frame, book).items[0];
    const largest = largestOnGrid(
      setWords(titles[at % titles.length] ?? '', style, book).ways,
      style,
      room,
      scale,
      0.2,
    );
    if (largest === 0) continue;
    found.possible += 1;
    if (!laid) {
      shares.push(0);
      continue;
    }
    if (!room.closed.some((one) => meets(one, laid.box))) found.free += 1;
    shares.push(laid.em / largest);
  }
  return { frames, ...found, least: Math.min(...shares), median: median(shares) };
}

type Ways = ReturnType<typeof setWords>['ways'];

/** The largest em at which words stand free at any place of a fine grid, in any number of lines; 0 where they never do. */
function largestOnGrid(
  ways: Ways,
  { setOff }: LetterStyle,
  { bounds, closed }: ReturnType<typeof roomIn>,
  scale: number,
  wanted: number,
): number {
  const pad = setOff.kind === 'plate' ? setOff.padding : setOff.kind === 'outline' ? setOff.width : 0;
  const steps = 48;
  let best = 0;
  for (const way of ways) {
    const least = (7 * scale) / way.xHeight;
    for (
      let em = Math.max(least, wanted * Math.min(bounds.width, bounds.height));
      em >= least && em > best;
      em /= 1.03
    ) {
      const size = { width: (way.width + 2 * pad) * em, height: (way.height + 2 * pad) * em };
      if (size.width > bounds.width || size.height > bounds.height) continue;
      for (let at = 0; at < (steps + 1) ** 2 && em > best; at += 1) {
        const box = {
          left: bounds.left + ((bounds.width - size.width) * (at % (steps + 1))) / steps,
          top: bounds.top + ((bounds.height - size.height) * Math.floor(at / (steps + 1))) / steps,
          ...size,
        };
        if (!closed.some((one) => meets(one, box))) best = em;
      }
    }
  }
  return best;
}

/** Milliseconds for the pixels of a portrait post with lettering and without, in turns, from one working copy. */
async function renderCost(picture: string): Promise<{ lettered: number; bare: number; ratio: number }> {
  const { original, ground } = await measured(picture);
  const placeId = 'sunpane/portrait-post';
  const place = shippedPlaces().get(placeId)?.place;
  if (!place) throw new Error('The portrait post is gone from the spec book.');
  const settings = {
    ...plainSettings,
    window: { centreX: 0, centreY: 0, span: 1, turn: 0, mirror: false },
    format: 'jpeg' as const,
  };
  const lettered: RenderPlan = planWithWords({
    original,
    place,
    settings,
    treatment: plainTreatment,
    keeping: keepNothing,
    lettering: { items: four(), book, originalId: randomUUID(), placeId, ground },
  }).plan;
  // The same window: without words it would be composed otherwise.
  const bare: RenderPlan = { ...lettered, lettering: null };
  const folder = await mkdtemp(join(tmpdir(), 'inkwell-bench-'));
  try {
    const copy = await makeWorkingCopy(await inspect(picture), folder);
    const time = async (one: RenderPlan) => {
      const from = performance.now();
      await renderPixels(one, copy);
      return performance.now() - from;
    };
    for (const plan of [lettered, bare]) await time(plan);
    const rounds: { lettered: number; bare: number }[] = [];
    for (let round = 0; round < renderRepeats; round += 1) {
      // Neither always comes after the other: each leaves work to the collector of memory.
      const first = round % 2 === 0 ? await time(lettered) : null;
      const bareTime = await time(bare);
      rounds.push({ lettered: first ?? (await time(lettered)), bare: bareTime });
    }
    return {
      lettered: median(rounds.map((one) => one.lettered)),
      bare: median(rounds.map((one) => one.bare)),
      ratio: median(rounds.map((one) => one.lettered / one.bare)),
    };
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

/** What is measured of words over pictures, as a section of the results. */
export async function letteringSection(picture: string, art: string): Promise<string> {
  const times = await layoutTimes(picture);
  const grid = compareWithGrid();
  const cost = await renderCost(picture);
  const legible = await legibleFrames(art);
  const program = await Program.start();
  const typed = await typing(program.client, picture);
  await program.stop();
  const percent = (share: number) => `${(share * 100).toFixed(1)} %`;
  return `## Lettering
Planning 40 frames of 24 megapixels with four items, after the picture was measured, and the same without items, in turns. Then the pixels of one
frame of 1080 × 1350 px with these items and without, from one working copy, in turns.

| what | with items | without | measured | aim |
|---|---|---|---|---|
| planning 40 frames | ${times.lettered.toFixed(0)} ms | ${times.bare.toFixed(0)} ms | **${(times.lettered - times.bare).toFixed(0)} ms** for the layout | under 200 ms |
| rendering 1080 × 1350 px | ${cost.lettered.toFixed(0)} ms | ${cost.bare.toFixed(0)} ms | **${cost.ratio.toFixed(2)}** times | at most 1.15 |

Titles in ${grid.frames} made frames with subjects, covered areas and masks, against all places and sizes of a fine grid, which finds a free place at
legible size in ${grid.possible} of them.

| free of all of that | size over the grid's largest, least | median | aim |
|---|---|---|---|
| **${percent(grid.free / grid.possible)}** | **${grid.least.toFixed(2)}** | ${grid.median.toFixed(2)} | 100 %, at least 0.9 |

A title in each of the ${shippedStyles.length} styles that ship, on light, dark, calm and busy pictures, the demo's among them, in shipped places: ${legible.frames} files, as JPEG
of quality 80 measured at every width at which they are shown.

| without a finding | of the others, right after the proposed fix | aim |
|---|---|---|
| **${percent(1 - legible.doubtful / legible.frames)}** | ${legible.doubtful - legible.afterFix} of ${legible.doubtful} | 95 %, all |

A title typed in headless Chromium without a graphics card, with ${typed.frames} frames on the wall, ${typed.keys} keys: from the key going down to the picture in which all of them
show it; then ${typed.restToProof.rests} rests, from the last key to the true proof of the chosen frame.

| median | p95 | aim |
|---|---|---|
| ${typed.median.toFixed(0)} ms | **${typed.p95.toFixed(0)} ms** | p95 under 100 ms |

| from rest to the true proof, median | p95 | aim |
|---|---|---|
| **${typed.restToProof.median.toFixed(0)} ms** | ${typed.restToProof.p95.toFixed(0)} ms | 400 ms |
`;
}
