import { plainTreatment } from '@inkwell/core/finishing';
import { frameDimensions, largestWindow, piecesOf, wholeOf } from '@inkwell/core/geometry';
import { keepNothing, plainSettings } from '@inkwell/core/model';
import { planFrame } from '@inkwell/core/planning';
import { sampleOriginal } from '@inkwell/core/testing';
import { renderFiles } from '@inkwell/server/imaging/encoding/render.ts';
import { inspect } from '@inkwell/server/imaging/intake/looking/inspect.ts';
import { makeWorkingCopy } from '@inkwell/server/imaging/intake/makeCopy.ts';
import { cutPieces } from '@inkwell/server/imaging/stages/cutting.ts';
import { renderPixels } from '@inkwell/server/imaging/stages/renderPixels.ts';
import { mapTwoAtATime } from '@inkwell/server/running/mapTwoAtATime.ts';
import { shippedPlaces } from '@inkwell/server/standins/shippedSheets.ts';
import sharp from 'sharp';
import { asBaseline, inFolder, jpeg, median, type Time, timed } from './inProcess.ts';

const panels = 10;
const repeats = 7;
const stripPlace = 'sunpane/swipe-panels-portrait';

interface StripComparison {
  ours: Time;
  baseline: Time;
  /** Medians over the rounds of ours / baseline. */
  ratio: Time;
  /** Encoding the ten alone, which both sides do alike, as a part of the baseline. */
  encodingShare: Time;
  /** The largest step that cutting before encoding added at a seam, in levels of 255. */
  worstSeam: number;
}

/** Ten portrait panels from a panorama, whole: working copy, rendering, cutting, encoding; against ten pipelines. */
async function compareStrip(picture: string): Promise<StripComparison> {
  const { width, height } = await inspect(picture);
  const place = shippedPlaces().get(stripPlace)?.place;
  if (!place) throw new Error('The spec book lacks the place that is measured.');
  const original = sampleOriginal({ width, height });
  const settings = { ...plainSettings, composed: false, grid: { columns: panels, rows: 1 }, format: 'jpeg' as const };
  const output = frameDimensions(place, original, settings);
  const window = largestWindow(wholeOf(original), output);
  const planned = planFrame({
    treatment: plainTreatment,
    keeping: keepNothing,
    original,
    place,
    settings: { ...settings, window },
  });
  const plan = { ...planned, encoding: { ...planned.encoding, ...asBaseline } };
  const { grid } = plan;
  if (!grid) throw new Error('The strip is not cut.');
  const ours = async (folder: string) => renderFiles(plan, await makeWorkingCopy(await inspect(picture), folder));
  const made = await inFolder(ours);
  const steps = [...(await made.seams()).values()].flat();
  const scale = window.span / output.width;
  const [left, top] = [window.centreX - window.span / 2, window.centreY - (output.height * scale) / 2];
  const baseline = () =>
    mapTwoAtATime(piecesOf(grid), async (piece, index) => {
      const cut = {
        left: Math.round(left + piece.left * scale),
        top: Math.round(top),
        width: Math.round(piece.width * scale),
        height: Math.round(piece.height * scale),
      };
      await sharp(picture)
        .extract(cut)
        .resize(piece.width, piece.height, { fit: 'fill', kernel: 'lanczos3' })
        .jpeg({ quality: made.pieces[index]?.quality ?? 90, mozjpeg: true })
        .toBuffer();
    });
  const cut = await inFolder(async (folder) => {
    const copy = await makeWorkingCopy(await inspect(picture), folder);
    return cutPieces(await renderPixels(plan, copy), grid);
  });
  const encodeAll = () =>
    mapTwoAtATime(cut, async (pixels, index) => {
      await jpeg.encode(pixels, made.pieces[index]?.quality ?? 90);
    });
  const rounds: { ours: Time; baseline: Time; encoding: Time }[] = [];
  for (let round = 0; round < repeats; round += 1) {
    // Measuring the seams belongs to a delivery.
    rounds.push({
      ours: await inFolder((folder) => timed(async () => (await ours(folder)).seams())),
      baseline: await timed(baseline),
      encoding: await timed(encodeAll),
    });
  }
  const of = (pick: (round: (typeof rounds)[number]) => number) => median(rounds.map(pick));
  return {
    ours: { wall: of((one) => one.ours.wall), cpu: of((one) => one.ours.cpu) },
    baseline: { wall: of((one) => one.baseline.wall), cpu: of((one) => one.baseline.cpu) },
    ratio: {
      wall: of((one) => one.ours.wall / one.baseline.wall),
      cpu: of((one) => one.ours.cpu / one.baseline.cpu),
    },
    encodingShare: {
      wall: of((one) => one.encoding.wall / one.baseline.wall),
      cpu: of((one) => one.encoding.cpu / one.baseline.cpu),
    },
    worstSeam: Math.max(...steps.map(({ step, undivided }) => step - undivided)),
  };
}

const seconds = (value: number) => `${value.toFixed(2)} s`;

/** Ten panels, as a section of the results. */
export async function stripSection(picture: string): Promise<string> {
  const strip = await compareStrip(picture);
  return `## Ten panels from one panorama
36 megapixels into 10 portrait panels of 1080 × 1350 px, where no limit binds: one working copy, rendered as a whole, cut, encoded, and the step at
every seam and the similarity of every file measured; against ten separate sharp pipelines at the same qualities, two at a time on both sides.

| ours | baseline | ratio | processor time, ratio | aim | encoding alone | largest step that cutting added at a seam |
|---|---|---|---|---|---|---|
| ${seconds(strip.ours.wall)} | ${seconds(strip.baseline.wall)} | **${strip.ratio.wall.toFixed(2)}** | ${seconds(strip.ours.cpu)} / ${seconds(strip.baseline.cpu)} = **${strip.ratio.cpu.toFixed(2)}** | at most 1.0 | ${strip.encodingShare.wall.toFixed(2)}, ${strip.encodingShare.cpu.toFixed(2)} | ${strip.worstSeam.toFixed(1)} of 255 levels |
`;
}
