import {
  type DeliveryFormat,
  type Dimensions,
  formatLabel,
  formatLimit,
  type Limit,
  type MeasuredFile,
} from '../model/index.ts';

export interface FileDemand {
  dimensions: Dimensions;
  format: DeliveryFormat;
  limit: Limit;
  /** The limit less headroom. */
  budgetBytes: number;
}

/** Why a finished file may not be delivered, in words; empty where it may. `file` was measured by opening it again. */
export function fileReasons(file: MeasuredFile, demand: FileDemand): string[] {
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
  return reasons;
}
