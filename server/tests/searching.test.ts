import { plainTreatment } from '@inkwell/core/finishing';
import {
  type Colours,
  type FidelityTier,
  type ImageFormat,
  keepNothing,
  plainWeighing,
  type Similarity,
} from '@inkwell/core/model';
import { planFrame, type RenderPlan } from '@inkwell/core/planning';
import { byHand, sampleOriginal, samplePlace } from '@inkwell/core/testing';
import { marginOver, tierFloors } from '@inkwell/core/weighing';
import { expect, test } from 'vitest';
import { encoderOf } from '../imaging/encoding/encoders.ts';
import { encodeFiles } from '../imaging/encoding/render.ts';
import { judged } from '../imaging/measuring/judging.ts';
import { type Pixels, toPixels } from '../imaging/stages/pixels.ts';
import { mapTwoAtATime } from '../running/mapTwoAtATime.ts';
import { kindSize, pictureKinds } from '../testing/pictures/pictureKinds.ts';

const { width, height } = kindSize;
const encoders: [ImageFormat, Colours][] = [
  ['jpeg', 'full'],
  ['webp', 'full'],
  ['avif', 'full'],
  ['png', 'palette'],
];

function planOf(format: ImageFormat, colours: Colours, bytes: number, level: FidelityTier | null): RenderPlan {
  const aim = level ? { kind: 'no heavier than it needs' as const, level } : { kind: 'as good as fits' as const };
  return planFrame({
    original: sampleOriginal({ width, height }),
    place: samplePlace({ width, height, formats: ['jpeg', 'png', 'webp', 'avif'], limit: { bytes, unit: 'kB' } }),
    settings: byHand(
      { centreX: width / 2, centreY: height / 2, span: width },
      { format, weighing: { ...plainWeighing, aim, colours, chroma: '4:2:0' } },
    ),
    treatment: plainTreatment,
    keeping: keepNothing,
    headroom: 0,
  });
}

interface Tried {
  quality: number;
  bytes: number;
  similarity: Similarity;
}

/** Every quality of an encoder, encoded, opened and compared. */
async function allOf(pixels: Pixels, plan: RenderPlan): Promise<Tried[]> {
  const encoder = encoderOf({ ...plan.encoding, chroma: '4:2:0', metadata: plan.encoding }, plan.encoding.quality);
  const all: Tried[] = [];
  for (const quality of encoder.ladder?.qualities ?? []) {
    const data = await encoder.encode(pixels, quality);
    all.push({ quality, bytes: data.length, similarity: await judged(pixels, data, []) });
  }
  return all;
}

// Files this small stray by a few per cent from one quality to the next, and every search has to look into that: of a frame's
// usual dimensions it takes about three encodings, which the bench reports.
test('every search gives what trying all qualities gives: as good as fits, and the lightest that holds a level', async () => {
  const counts = new Map<string, number[]>();
  const count = (kind: string, encodings: number) => counts.set(kind, [...(counts.get(kind) ?? []), encodings]);
  await mapTwoAtATime(pictureKinds, async ([name, picture]) => {
    const pixels: Pixels = await toPixels(picture.removeAlpha().toColourspace('srgb'));
    const files = (plan: RenderPlan) => encodeFiles(plan, { whole: pixels, cut: [pixels] });
    for (const [format, colours] of encoders) {
      const all = await allOf(pixels, planOf(format, colours, 1e6, null));
      const byBytes = [...all].sort((a, b) => a.bytes - b.bytes);
      const at = (share: number) => (byBytes[Math.floor((byBytes.length - 1) * share)]?.bytes ?? 0) + 1;
      // Three limits that bind, and one that nothing meets.
      for (const limit of [at(0.2), at(0.55), at(0.9), (byBytes[0]?.bytes ?? 2) - 1]) {
        const { weight, encodings } = await files(planOf(format, colours, limit, null));
        const best = all.findLast((one) => one.bytes <= limit);
        expect([weight.quality, weight.bytes, weight.fits], `${name}, ${format} under ${limit} bytes`).toEqual(
          best ? [best.quality, best.bytes, true] : [all[0]?.quality, all[0]?.bytes, false],
        );
        count(`${format} under a limit`, encodings);
      }
      for (const level of ['flick', 'look', 'glance'] as const) {
        const { weight, encodings } = await files(planOf(format, colours, 1e6, level));
        const holding = byBytes.filter(({ similarity }) => marginOver(similarity, tierFloors[level]) >= 0);
        // The best there is, where none holds it.
        const { quality, bytes } = holding[0] ?? (all.at(-1) as Tried);
        expect([weight.quality, weight.bytes], `${name}, the lightest ${format} for ${level}`).toEqual([
          quality,
          bytes,
        ]);
        count(`${format} for ${level}`, encodings);
      }
    }
  });
  for (const [kind, each] of counts) {
    const mean = each.reduce((sum, one) => sum + one, 0) / each.length;
    console.log(
      `${kind}: ${each.length} searches, ${mean.toFixed(1)} encodings in the mean, ${Math.max(...each)} at most`,
    );
  }
  expect([...counts.values()].reduce((sum, each) => sum + each.length, 0)).toBe(12 * 4 * 7);
});
