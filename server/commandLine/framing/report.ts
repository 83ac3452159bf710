import type { Delivery, OpenProject } from '@inkwell/core/model';
import type { DoubtfulRow } from './series.ts';
import type { Refused } from './takingIn.ts';

/** What came of framing. */
export interface Outcome {
  project: OpenProject;
  delivery: Delivery;
  /** The paths of the files in the folder. */
  written: string[];
  refused: Refused[];
  /** Places of the set that are not in the spec book. */
  missing: string[];
  /** Rows of a series that are not framed, or not as they say. */
  doubtful: DoubtfulRow[];
  /** The folder. */
  out: string;
}

/** Says what came of framing: for people line by line, what was left out first; or as JSON. */
export function report(
  { project, delivery, written, refused, missing, doubtful, out }: Outcome,
  isJson: boolean,
  say: (line: string) => void,
): void {
  const { leftOut } = delivery;
  if (isJson) {
    const { id, name } = project;
    const said = {
      project: { id, name },
      delivery: delivery.id,
      out,
      files: written,
      leftOut,
      refused,
      missing,
      rows: doubtful,
    };
    say(JSON.stringify(said, null, 2));
    return;
  }
  for (const { file, reason } of refused) say(`Not taken  ${file}: ${reason}`);
  for (const { row, picture, reasons } of doubtful) say(`Row ${row}  ${picture}: ${reasons.join(' ')}`);
  for (const id of missing) say(`Left out  ${id}: the set names it, and it is not in the spec book any more.`);
  for (const { file, reasons } of leftOut) say(`Left out  ${file}: ${reasons.join(' ')}`);
  const count = written.length === 1 ? '1 file' : `${written.length} files`;
  const others = leftOut.length + refused.length + missing.length + doubtful.length;
  say(`${project.name}: ${count} in ${out}${others > 0 ? `; ${others} left out, as said above` : ''}.`);
}
