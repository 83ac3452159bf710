import { scaledBy } from '@inkwell/core/geometry';
import type { AfterUpload, LeftAt, Place, TriedUpload, UploadChoice } from '@inkwell/core/model';
import type { RenderPlan } from '@inkwell/core/planning';
import { isRescaled, scoreAt } from '@inkwell/core/surviving';
import type { RecentPixels } from '../../imaging/copies/recentPixels.ts';
import { encoderFor } from '../../imaging/encoding/planEncoder.ts';
import { opaque, scaledTo } from '../../imaging/measuring/asSeen.ts';
import { alike } from '../../imaging/measuring/judging.ts';
import { decoded } from '../../imaging/measuring/opening.ts';
import type { Pixels } from '../../imaging/stages/pixels.ts';
import { processed } from '../../standins/processing/processing.ts';

/** An upload that is tried, and what what is shown of it is compared with. */
export interface ToTry {
  choice: UploadChoice;
  /** By which the files are made. */
  plan: RenderPlan;
  place: Place;
  after: AfterUpload;
  /** The uncompressed frame in the dimensions of its place, by piece; only those that are looked at. */
  references: ReadonlyMap<number, Pixels>;
}

/** At most so many pieces of a strip are looked at: its ends and its middle. */
const mostPieces = 3;

/** The pieces that are looked at, in reading order, from 0. */
export const piecesToTry = (count: number): number[] =>
  count <= mostPieces ? [...Array(count).keys()] : [0, Math.floor(count / 2), count - 1];

/**
 * Makes files as a choice says, hands them to what their network does after an upload, and measures what is left of them in full and at
 * every width at which they are shown, without a network. Of several pieces the one that has lost the most counts.
 *
 * @param limited whether files heavier than their place takes are refused
 * @returns null where the place would not take them
 */
export async function attempt(
  recent: RecentPixels,
  { choice, plan, place, after, references }: ToTry,
  limited: boolean,
): Promise<TriedUpload | null> {
  const { cut } = await recent.get(plan);
  const chroma = choice.chroma ?? (choice.format === 'webp' ? '4:2:0' : null);
  const { encode } = encoderFor(plan, chroma, choice.quality ?? undefined);
  const left: LeftAt[] = [];
  let bytes = 0;
  for (const [piece, reference] of references) {
    const pixels = cut[piece];
    if (!pixels) throw new RangeError(`This plan has no piece ${piece}.`);
    const data = await encode(pixels, choice.quality);
    if (limited && data.length > plan.encoding.budgetBytes) return null;
    bytes = Math.max(bytes, data.length);
    const { kept, shown } = await processed(data, place, after, plan.grid?.columns);
    // Whatever is uploaded is looked at as large as what is kept of the place's own dimensions.
    const full = scaledBy(reference, Math.min(1, after.longEdge / Math.max(reference.width, reference.height)));
    const seen = [{ shownWidth: null, data: kept.data, ...full }, ...shown];
    for (const [at, { shownWidth, data: rendition, width, height }] of seen.entries()) {
      const [wanted, found] = await Promise.all([
        scaledTo(reference, { width, height }),
        decoded(rendition).then((pixels) => scaledTo(pixels, { width, height })),
      ]);
      const { overall, worst } = await alike(wanted, found, []);
      const one = { shownWidth, similarity: overall, worst: worst.similarity };
      const before = left[at];
      if (!before || scoreAt(one) < scoreAt(before)) left[at] = one;
    }
  }
  const file = plan.grid?.piece ?? plan.output;
  return { choice, left, bytes, isRescaled: isRescaled(file, { afterUpload: after }) ?? false };
}

/** The uncompressed pieces of a plan that others are compared with. */
export async function referencesOf(recent: RecentPixels, plan: RenderPlan): Promise<Map<number, Pixels>> {
  const { cut } = await recent.get(plan);
  const references = new Map<number, Pixels>();
  for (const piece of piecesToTry(cut.length)) {
    const pixels = cut[piece];
    if (pixels) references.set(piece, await opaque(pixels));
  }
  return references;
}
