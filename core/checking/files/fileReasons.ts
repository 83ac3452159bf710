import {
  type Dimensions,
  formatLabel,
  formatLimit,
  type ImageFormat,
  type Limit,
  type MeasuredFile,
  type Similarity,
} from '../../model/index.ts';
import { marginOver, type QualityFloor } from '../../weighing/index.ts';

export interface FileDemand {
  dimensions: Dimensions;
  format: ImageFormat;
  limit: Limit;
  /** The limit less headroom. */
  budgetBytes: number;
  /** The similarity that it has to have at least; null where anything will do. */
  least: QualityFloor | null;
}

/** A file as it was found when it was opened again. */
export type OpenedFile = MeasuredFile & { similarity: Similarity };

/** Why a finished file may not be delivered, in words; empty where it may. `file` was measured by opening it again. */
export function fileReasons(file: OpenedFile, demand: FileDemand): string[] {
  const reasons: string[] = [];
  const { width, height } = demand.dimensions;
  if (file.width !== width || file.height !== height) {
    reasons.push(`It came out as ${file.width} × ${file.height} px; the place wants ${width} × ${height} px.`);
  }
  if (file.format !== demand.format) {
    reasons.push(`It came out as ${file.format}; ${formatLabel[demand.format]} was asked for.`);
  }
  if (file.bytes > demand.budgetBytes) {
    reasons.push(
      `It weighs ${file.bytes.toLocaleString('en')} bytes; the limit of ${formatLimit(demand.limit)} less headroom is ` +
        `${demand.budgetBytes.toLocaleString('en')} bytes.`,
    );
  }
  if (demand.least && marginOver(file.similarity, demand.least) < 0) {
    reasons.push(
      `Under its limit only ${file.similarity.overall} of 100 would be left of it, ` +
        `${file.similarity.worst.similarity} at the worst spot. Allow that on the bench, or choose one of the ways to make it fit.`,
    );
  }
  return reasons;
}
