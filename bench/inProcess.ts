import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { plainTreatment } from '@inkwell/core/finishing';
import { keepNothing } from '@inkwell/core/model';
import { planFrame, type RenderPlan, sourceMappingOf } from '@inkwell/core/planning';
import { sampleOriginal } from '@inkwell/core/testing';
import { demoFrames, demoSettings } from '@inkwell/demo/project.ts';
import { encoderOf } from '@inkwell/server/imaging/encoding/encoders.ts';
import { type Rendered, renderFiles } from '@inkwell/server/imaging/encoding/render.ts';
import { inspect } from '@inkwell/server/imaging/intake/looking/inspect.ts';
import { makeWorkingCopy } from '@inkwell/server/imaging/intake/makeCopy.ts';
import { renderPixels } from '@inkwell/server/imaging/stages/renderPixels.ts';
import { mapTwoAtATime } from '@inkwell/server/running/mapTwoAtATime.ts';
import { shippedPlaces } from '@inkwell/server/standins/shippedSheets.ts';
import sharp from 'sharp';

/** The encoder that files go through, without a search. */
export const jpeg = encoderOf(
  {
    format: 'jpeg',
    colours: 'full',
    chroma: '4:2:0',
    metadata: { profile: false, words: null, origin: { position: null, device: null } },
  },
  95,
);

/** How both sides encode where the baseline is a pipeline that is told its quality. */
export const asBaseline = { enough: null, least: null, chroma: '4:2:0' as const, quality: 90 };

const placeCount = 12;
const repeats = 7;
/** Every limit binds when a file may only weigh this part of what it weighs at quality 90. */
const bindingShare = 0.6;

/** Twelve frames of the demo's five flyers, 6000 x 4000, as plans. */
export async function twelvePlans(picture: string): Promise<RenderPlan[]> {
  const { width, height } = await inspect(picture);
  const places = shippedPlaces();
  const frames = demoFrames.find((one) => one.picture === 'flyers')?.frames ?? [];
  const plans = frames.slice(0, placeCount).flatMap((frame) => {
    const place = places.get(frame[0])?.place;
    if (!place) return [];
    const original = sampleOriginal({ width, height });
    const plan = planFrame({
      treatment: plainTreatment,
      keeping: keepNothing,
      original,
      place,
      settings: demoSettings(frame, original, place),
    });
    // As good as fits up to a quality of 90, without a search for what is enough: the baseline makes none either.
    return [{ ...plan, encoding: { ...plan.encoding, ...asBaseline } }];
  });
  // As a delivery does, the largest first, for both sides.
  return plans.sort((a, b) => b.output.width * b.output.height - a.output.width * a.output.height);
}

/** Does something with a folder of its own. What it takes to remove the folder belongs to nobody's time. */
export async function inFolder<Result>(task: (folder: string) => Promise<Result>): Promise<Result> {
  const folder = await mkdtemp(join(tmpdir(), 'inkwell-bench-'));
  try {
    return await task(folder);
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

/** From the file to all finished files through one working copy, as the program does it. */
async function throughWorkingCopy(picture: string, plans: RenderPlan[], folder: string): Promise<Rendered[]> {
  const copy = await makeWorkingCopy(await inspect(picture), folder);
  const files: Rendered[] = [];
  await mapTwoAtATime(plans, async (plan, index) => {
    files[index] = await renderFiles(plan, copy);
  });
  return files;
}

/** The baseline: each file in a pipeline of its own from the original, at the quality that is known to be the answer. */
export async function oneShots(picture: string, plans: RenderPlan[], qualities: number[]): Promise<void> {
  await mapTwoAtATime(plans, async (plan, index) => {
    const { source, output } = sourceMappingOf(plan).part;
    const cut = {
      left: Math.round(source.left),
      top: Math.round(source.top),
      width: Math.round(source.width),
      height: Math.round(source.height),
    };
    await sharp(picture)
      .extract(cut)
      .resize(output.width, output.height, { fit: 'fill', kernel: 'lanczos3' })
      .jpeg({ quality: qualities[index] ?? 90, mozjpeg: true })
      .toBuffer();
  });
}

/** What both sides do alike: encoding, from pixels that are rendered already. */
const encodings = (picture: string, plans: RenderPlan[], qualities: number[]): Promise<() => Promise<void>> =>
  inFolder(async (folder) => {
    const copy = await makeWorkingCopy(await inspect(picture), folder);
    const rendered = await Promise.all(plans.map((plan) => renderPixels(plan, copy)));
    return () =>
      mapTwoAtATime(rendered, async (pixels, index) => {
        await jpeg.encode(pixels, qualities[index] ?? 90);
      });
  });

/** Seconds on the clock, and seconds of processor time, which a busy neighbour on the machine disturbs less. */
export interface Time {
  wall: number;
  cpu: number;
}
export async function timed(task: () => Promise<unknown>): Promise<Time> {
  const before = process.cpuUsage();
  const began = performance.now();
  await task();
  const { user, system } = process.cpuUsage(before);
  return { wall: (performance.now() - began) / 1000, cpu: (user + system) / 1e6 };
}
export const median = (values: number[]) => [...values].sort((a, b) => a - b)[values.length >> 1] ?? Number.NaN;

export interface Comparison {
  ours: Time;
  baseline: Time;
  /** Medians over the rounds of ours / baseline. */
  ratio: Time;
  /** Median over the rounds of encoding alone / baseline: no way of reading the picture gets below this. */
  encodingShare: Time;
  encodings: number;
  sketches: number;
}

const share = (part: Time, whole: Time): Time => ({ wall: part.wall / whole.wall, cpu: part.cpu / whole.cpu });
const medians = (times: Time[]): Time => ({
  wall: median(times.map((one) => one.wall)),
  cpu: median(times.map((one) => one.cpu)),
});

async function compare(picture: string, plans: RenderPlan[]): Promise<Comparison> {
  const files = await inFolder((folder) => throughWorkingCopy(picture, plans, folder));
  const qualities = files.map((file) => file.weight.quality ?? 90);
  const encodeAll = await encodings(picture, plans, qualities);
  const rounds: { ours: Time; baseline: Time; encoding: Time }[] = [];
  for (let round = 0; round < repeats; round += 1) {
    rounds.push({
      ours: await inFolder((folder) => timed(() => throughWorkingCopy(picture, plans, folder))),
      baseline: await timed(() => oneShots(picture, plans, qualities)),
      encoding: await timed(encodeAll),
    });
  }
  const mean = (values: number[]) => values.reduce((sum, value) => sum + value, 0) / values.length;
  return {
    ours: medians(rounds.map((round) => round.ours)),
    baseline: medians(rounds.map((round) => round.baseline)),
    ratio: medians(rounds.map(({ ours, baseline }) => share(ours, baseline))),
    encodingShare: medians(rounds.map(({ encoding, baseline }) => share(encoding, baseline))),
    encodings: mean(files.map((file) => file.encodings)),
    sketches: mean(files.map((file) => file.sketches)),
  };
}

export async function compareDelivery(picture: string): Promise<{ free: Comparison; binding: Comparison }> {
  const plans = await twelvePlans(picture);
  const free = await compare(picture, plans);
  const files = await inFolder((folder) => throughWorkingCopy(picture, plans, folder));
  const tight = plans.map((plan, index) => ({
    ...plan,
    encoding: { ...plan.encoding, budgetBytes: Math.floor((files[index]?.weight.bytes ?? 0) * bindingShare) },
  }));
  return { free, binding: await compare(picture, tight) };
}
