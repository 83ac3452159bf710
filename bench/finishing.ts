import { acutanceOf, finishById, finishFigures, haloOf, plainTreatment } from '@inkwell/core/finishing';
import type { Treatment } from '@inkwell/core/model';
import { keepNothing } from '@inkwell/core/model';
import type { Raster } from '@inkwell/core/planes';
import { plainPlan, planFrame, type RenderPlan } from '@inkwell/core/planning';
import { localRange, luminancePlane } from '@inkwell/core/seeing';
import { sampleOriginal } from '@inkwell/core/testing';
import { madePicture, type PictureKey, pictures } from '@inkwell/demo/make.ts';
import { demoSettings } from '@inkwell/demo/project.ts';
import type { WorkingCopy } from '@inkwell/server/imaging/copies/workingCopy.ts';
import { renderFiles } from '@inkwell/server/imaging/encoding/render.ts';
import { inspect } from '@inkwell/server/imaging/intake/looking/inspect.ts';
import { makeWorkingCopy } from '@inkwell/server/imaging/intake/makeCopy.ts';
import { fromPixels, type Pixels, toPixels } from '@inkwell/server/imaging/stages/pixels.ts';
import { renderPixels } from '@inkwell/server/imaging/stages/renderPixels.ts';
import { shippedPlaces } from '@inkwell/server/standins/shippedSheets.ts';
import { asBaseline, inFolder, median, type Time, timed } from './inProcess.ts';

const repeats = 7;
const portrait = 'sunpane/portrait-post';
const crisp = finishById('crisp', []).treatment;

const withCopy = <Value>(
  picture: string,
  use: (copy: WorkingCopy, plain: RenderPlan) => Promise<Value>,
): Promise<Value> =>
  inFolder(async (folder) => {
    const found = await inspect(picture);
    return use(await makeWorkingCopy(found, folder), planAt(found, plainTreatment));
  });

/** The largest portrait post in the middle of a picture. */
function planAt({ width, height }: { width: number; height: number }, treatment: Treatment): RenderPlan {
  const place = shippedPlaces().get(portrait)?.place;
  if (!place) throw new Error(`There is no ${portrait}.`);
  const original = sampleOriginal({ width, height });
  const settings = { ...demoSettings([portrait], original, place), composed: false };
  const plan = planFrame({ original, place, settings, treatment, keeping: keepNothing });
  return { ...plan, encoding: { ...plan.encoding, ...asBaseline } };
}

export interface FinishCost {
  finished: Time;
  plain: Time;
  ratio: Time;
}

/** A finished 1080 x 1350 file against the same plain, from the original's file on, and from its working copy on. */
export async function finishCost(picture: string): Promise<{ fromFile: FinishCost; fromCopy: FinishCost }> {
  const found = await inspect(picture);
  const [plain, finished] = [planAt(found, plainTreatment), planAt(found, crisp)];
  const fromFile = (plan: RenderPlan) => withCopy(picture, (copy) => renderFiles(plan, copy));
  // Threads are started once in the life of a program.
  await fromFile(finished);
  const compare = async (make: (plan: RenderPlan) => Promise<unknown>): Promise<FinishCost> => {
    const rounds: { finished: Time; plain: Time }[] = [];
    for (let round = 0; round < repeats; round += 1) {
      rounds.push({ finished: await timed(() => make(finished)), plain: await timed(() => make(plain)) });
    }
    const of = (time: (round: (typeof rounds)[number]) => number) => median(rounds.map(time));
    return {
      finished: { wall: of((one) => one.finished.wall), cpu: of((one) => one.finished.cpu) },
      plain: { wall: of((one) => one.plain.wall), cpu: of((one) => one.plain.cpu) },
      ratio: {
        wall: of((one) => one.finished.wall / one.plain.wall),
        cpu: of((one) => one.finished.cpu / one.plain.cpu),
      },
    };
  };
  return {
    fromFile: await compare(fromFile),
    fromCopy: await withCopy(picture, (copy) => compare((plan) => renderFiles(plan, copy))),
  };
}

export interface Sharpness {
  picture: string;
  /** Energy of edges, in levels a pixel. */
  plain: number;
  ours: number;
  theirs: number;
  /** Mean overshoot at edges, a share of their contrast: the same on both sides. */
  halo: number;
  theirHalo: number;
  /** Halo and acutance at several strengths of both, for a plot. */
  plot: { way: 'ours' | 'theirs'; strength: number; halo: number; acutance: number }[];
}

const strengths = [0.25, 0.5, 1, 1.5, 2, 3];

/** A finish as strong as so many of itself. */
const stronger = (times: number): Treatment => ({
  ...crisp,
  sharpen: { ...crisp.sharpen, amount: crisp.sharpen.amount * times },
  second: { ...crisp.second, amount: crisp.second.amount * times },
});

/** Radius of sharp's own sharpening in the comparison: that of the finish. */
const theirSigma = crisp.sharpen.radius;

/**
 * Acutance at equal halo: our finish, and a plain resize followed by sharp's own sharpening, as strong as gives the same
 * mean overshoot at edges. Means of luminance are not put back on their side.
 */
export async function compareSharpness(art: string): Promise<Sharpness[]> {
  const found: Sharpness[] = [];
  for (const key of ['flyers', 'panorama', 'maker', 'poster', 'plan'] as const satisfies readonly PictureKey[]) {
    const picture = await madePicture(key, art);
    found.push(
      await withCopy(picture, async (copy, plan) => {
        const plain = await renderPixels(plainPlan(plan), copy);
        const finished = await renderPixels(planAt(await inspect(picture), crisp), copy);
        const { low, high } = localRange(luminancePlane(plain as Raster), 2);
        const haloAt = (pixels: Pixels) => haloOf(luminancePlane(pixels as Raster), low, high);
        const figures = finishFigures(plain as Raster, finished as Raster);
        const halo = haloAt(finished);
        const theirs = await sharpenedTo(plain, halo, haloAt);
        const found = await inspect(picture);
        const plot: Sharpness['plot'] = [];
        for (const strength of strengths) {
          const ways = {
            ours: await renderPixels(planAt(found, stronger(strength)), copy),
            theirs: await theirSharpening(plain, strength),
          };
          for (const way of ['ours', 'theirs'] as const) {
            const acutance = acutanceOf(luminancePlane(ways[way] as Raster));
            plot.push({ way, strength, halo: haloAt(ways[way]), acutance });
          }
        }
        return {
          picture: pictures[key].name,
          plain: figures.plain.acutance,
          ours: figures.finished.acutance,
          theirs: acutanceOf(luminancePlane(theirs as Raster)),
          halo,
          theirHalo: haloAt(theirs),
          plot,
        };
      }),
    );
  }
  return found;
}

const theirSharpening = (plain: Pixels, strength: number): Promise<Pixels> =>
  toPixels(fromPixels(plain).sharpen({ sigma: theirSigma, m1: strength, m2: strength, x1: 0, y2: 100, y3: 100 }));

/** What a plot of acutance over halo is drawn from. */
export const plotData = (all: readonly Sharpness[]): string =>
  [
    'picture,way,strength,halo,acutance',
    ...all.flatMap(({ picture, plot }) =>
      plot.map((point) =>
        [picture, point.way, point.strength, point.halo.toFixed(4), point.acutance.toFixed(3)].join(','),
      ),
    ),
    '',
  ].join('\n');

/** sharp's sharpening at the strength that gives a halo, found by halving. */
async function sharpenedTo(plain: Pixels, halo: number, haloAt: (pixels: Pixels) => number): Promise<Pixels> {
  const at = (strength: number) => theirSharpening(plain, strength);
  let [least, most] = [0, 10];
  for (let step = 0; step < 12; step += 1) {
    const middle = (least + most) / 2;
    if (haloAt(await at(middle)) < halo) least = middle;
    else most = middle;
  }
  return at((least + most) / 2);
}
