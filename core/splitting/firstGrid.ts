import type { Picture } from '../geometry/index.ts';
import type { FrameSettings, Mark, Place } from '../model/index.ts';
import { planStrips } from './planStrips.ts';

/** A quilt begins with so many rows, where its place allows them. */
const quiltRows = 2;

/** The grid of so many panels side by side, or rows of a quilt. Whether its place takes that, `gridProblem` says. */
export const gridOfCount = ({ group }: Pick<Place, 'group'>, count: number): NonNullable<FrameSettings['grid']> =>
  group?.kind === 'quilt' ? { columns: group.columns, rows: count } : { columns: count, rows: 1 };

/** Into how many pieces a new frame is cut: as its network shows them, or into the panels that suit the picture best. */
export function firstGrid(place: Place, original: Picture, marks: readonly Mark[]): FrameSettings['grid'] {
  const { group } = place;
  if (!group) return null;
  if (group.kind === 'panels') {
    const [best] = planStrips(original, [place], marks).proposals;
    return { columns: best?.panels ?? group.min, rows: 1 };
  }
  if (group.kind === 'block') return { columns: group.columns, rows: group.rows };
  return { columns: group.columns, rows: Math.min(group.maxRows, Math.max(group.minRows, quiltRows)) };
}
