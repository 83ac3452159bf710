import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { finishById } from '@inkwell/core/finishing';
import { largestWindow, placeDimensions, wholeOf } from '@inkwell/core/geometry';
import {
  type FrameChange,
  type FrameSettings,
  keepNothing,
  type Original,
  plainSettings,
  type Survival,
  type TriedUpload,
  type UploadChoice,
} from '@inkwell/core/model';
import { type FrameToPlan, planFrame, type RenderPlan } from '@inkwell/core/planning';
import { firstGrid } from '@inkwell/core/splitting';
import { changeFor, choiceOf, scoreOf } from '@inkwell/core/surviving';
import { sampleOriginal } from '@inkwell/core/testing';
import { madePicture, type PictureKey } from '@inkwell/demo/make.ts';
import { RecentPixels } from '@inkwell/server/imaging/copies/recentPixels.ts';
import { encodeFiles } from '@inkwell/server/imaging/encoding/render.ts';
import { inspect } from '@inkwell/server/imaging/intake/looking/inspect.ts';
import { makeWorkingCopy } from '@inkwell/server/imaging/intake/makeCopy.ts';
import { networkSheets } from '@inkwell/server/standins/networkSheet.ts';
import { shippedPlaces, shippedSheets } from '@inkwell/server/standins/shippedSheets.ts';
import { attempt, referencesOf } from '@inkwell/server/tasks/surviving/attempt.ts';
import { type PlaceSays, placeSays } from '@inkwell/server/tasks/surviving/network.ts';
import { survivalOf } from '@inkwell/server/tasks/surviving/survivalOf.ts';
import { median } from './inProcess.ts';
import { makePoster } from './seeing/posters.ts';

const demoPictures: readonly PictureKey[] = ['flyers', 'maker', 'panorama', 'snapshot', 'plan', 'poster'];
const madeCount = 12;
/** The picture on which the way to upload is learned at every place. */
const learnedOn = 'flyers';
const treatment = finishById('crisp', []).treatment;

/** Pictures as files, painted once. */
async function paintedInto(folder: string, art: string): Promise<Map<string, string>> {
  const files = new Map<string, string>();
  for (const key of demoPictures) files.set(key, await madePicture(key, art));
  for (let seed = 1; seed <= madeCount; seed += 1) {
    const path = join(folder, `poster-${seed}.png`);
    await writeFile(path, (await makePoster(100 + seed)).picture);
    files.set(`made ${seed}`, path);
  }
  return files;
}

interface Subject {
  original: Original;
  settings: FrameSettings;
  at: PlaceSays;
  recent: RecentPixels;
  planWith(change: FrameChange): RenderPlan;
}

/** The largest frame in the middle of a picture, as a new project has it, finished for its small size. */
function subjectAt(original: Original, at: PlaceSays, recent: RecentPixels): Subject | null {
  const { place } = at;
  const grid = firstGrid(place, original, []);
  if (place.group && !grid) return null;
  const settings: FrameSettings = {
    ...plainSettings,
    window: largestWindow(wholeOf(original), placeDimensions(place, original)),
    grid,
    format: place.formats.includes('jpeg') ? 'jpeg' : 'png',
  };
  const frame: Omit<FrameToPlan, 'settings'> = { original, place, treatment, keeping: keepNothing };
  const planWith = (change: FrameChange) => planFrame({ ...frame, settings: { ...settings, ...change } });
  return { original, settings, at, recent, planWith };
}

/** What really is left of a frame at its network, which may do otherwise than its sheet says. */
async function reallyLeft(
  { recent, at, settings, planWith }: Subject,
  choice: UploadChoice | null,
): Promise<TriedUpload | null> {
  const network = networkSheets().find(({ slug }) => slug === at.network.slug);
  if (!network) throw new Error(at.network.slug);
  const references = await referencesOf(recent, planWith({ uploadWidth: null }));
  const asked = { place: at.place, after: network.afterUpload, references };
  if (choice)
    return attempt(recent, { ...asked, choice, plan: planWith(changeFor(choice, settings, treatment.blend)) }, true);
  const plan = planWith({});
  const { weight } = await encodeFiles(plan, await recent.get(plan));
  return attempt(recent, { ...asked, choice: choiceOf(settings, weight), plan }, false);
}

interface Gain {
  network: string;
  before: TriedUpload;
  after: TriedUpload;
}

/** What is gained by uploading frames as was learned: points of 100, and shares of the frames. */
export interface GainFigures {
  /** Null for all networks together. */
  network: string | null;
  median: number;
  mean: number;
  most: number;
  better: number;
  worse: number;
  rescaled: { before: number; after: number };
}

export interface SurvivingFigures {
  places: number;
  frames: number;
  /** Files that were too heavy as the choice has them: their place's own stays. */
  notTaken: number;
  /** All together first. */
  gains: GainFigures[];
}

/** Learns a way to upload at every place on one picture, by the spec book, and uses it for all pictures, at the networks as they are. */
export async function survivingFigures(art: string): Promise<SurvivingFigures> {
  const folder = await mkdtemp(join(tmpdir(), 'inkwell-bench-'));
  try {
    const files = await paintedInto(folder, art);
    const says = [...shippedPlaces().keys()].flatMap(
      (id) => placeSays({ places: shippedPlaces(), sheets: shippedSheets() }, id) ?? [],
    );
    const learned = new Map<string, Survival>();
    const gains: Gain[] = [];
    let notTaken = 0;
    const order = [learnedOn, ...[...files.keys()].filter((key) => key !== learnedOn)];
    for (const key of order) {
      const found = await inspect(files.get(key) ?? '');
      const original = sampleOriginal({ ...found, sha256: key.padEnd(64, '0'), format: 'jpeg' });
      const copy = await makeWorkingCopy(found, folder);
      const recent = new RecentPixels({ forPlan: async () => copy });
      for (const at of says) {
        const subject = subjectAt(original, at, recent);
        if (!subject) continue;
        if (!learned.has(at.id)) {
          const own = subject.planWith({});
          const { weight } = await encodeFiles(own, await recent.get(own));
          learned.set(at.id, await survivalOf(recent, { ...subject, treatment, weight }));
        }
        const choice = learned.get(at.id)?.best.choice ?? null;
        const before = await reallyLeft(subject, null);
        const after = await reallyLeft(subject, choice);
        if (!before) throw new Error(at.id);
        if (!after) notTaken += 1;
        gains.push({ before, after: after ?? before, network: at.network.name });
      }
    }
    const networks = [null, ...new Set(gains.map(({ network }) => network))];
    return {
      places: learned.size,
      frames: gains.length,
      notTaken,
      gains: networks.map((network) => summed(gains, network)),
    };
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

const share = <Item>(all: readonly Item[], is: (one: Item) => boolean) => all.filter(is).length / all.length;

/** Figures are shown with one decimal: less is no difference. */
const seen = 0.05;

function summed(all: readonly Gain[], network: string | null): GainFigures {
  const gains = network === null ? all : all.filter((one) => one.network === network);
  const points = gains.map(({ before, after }) => scoreOf(after) - scoreOf(before));
  return {
    network,
    median: median([...points]),
    mean: points.reduce((sum, one) => sum + one, 0) / points.length,
    most: Math.max(...points),
    better: share(points, (one) => one >= seen),
    worse: share(points, (one) => one <= -seen),
    rescaled: {
      before: share(gains, ({ before }) => before.isRescaled),
      after: share(gains, ({ after }) => after.isRescaled),
    },
  };
}
