import {
  type Dimensions,
  formatLabel,
  formatWeight,
  type LeftAt,
  type SpecSheet,
  type Survival,
  type UploadChoice,
  type WeightUnit,
} from '@inkwell/core/model';
import { isRescaled, isShownBetter, mostGained } from '@inkwell/core/surviving';

/** How a file is uploaded. @param dimensions of the file */
export const choiceWords = (
  { format, quality, chroma, strength }: UploadChoice,
  { width, height }: Dimensions,
): string =>
  [
    `${width} × ${height} px`,
    quality === null ? formatLabel[format] : `${formatLabel[format]} ${quality}`,
    ...(chroma ? [`colour ${chroma}`] : []),
    ...(strength === 1 ? [] : [`${strength} × the finish’s blend`]),
  ].join(', ');

/** Where a frame is looked at. */
export const whereWords = ({ shownWidth }: Pick<LeftAt, 'shownWidth'>): string =>
  shownWidth === null ? 'in full' : `at ${shownWidth} px`;

/** What a network does with a file of some dimensions; empty where its sheet does not say so. */
export function afterwardsWords({ name, afterUpload, otherSides }: SpecSheet, { width, height }: Dimensions): string {
  if (!afterUpload) return '';
  const { longEdge, format, quality } = afterUpload;
  const share = longEdge / Math.max(width, height);
  const scaled = isRescaled({ width, height }, { afterUpload, otherSides })
    ? `scales this file to ${Math.round(width * share)} × ${Math.round(height * share)} px and encodes it`
    : 'keeps the dimensions of this file and encodes it';
  return `${name} ${scaled} as ${formatLabel[format]} ${quality}.`;
}

/** What is gained by a way to upload that was found. */
export function gainWords(survival: Survival, unit: WeightUnit): string {
  const { asSet, best } = survival;
  const most = mostGained(survival);
  const weights = `${formatWeight(best.bytes, unit)} instead of ${formatWeight(asSet.bytes, unit)}`;
  if (!isShownBetter(survival) || !most) return `shown as well, with ${weights}`;
  const { after, before } = most;
  return `shown ${after.similarity.toFixed(1)} instead of ${before.similarity.toFixed(1)} ${whereWords(after)}, with ${weights}`;
}
