import { limitFor, type SheetContent, type SheetEffects } from '@inkwell/core/model';
import { notTaken } from '@inkwell/core/splitting';
import { budgetBytes } from '@inkwell/core/weighing';
import type { Services } from '../../services.ts';
import type { Queryable } from '../../store/database.ts';
import { findSheet } from '../../store/library/sheets.ts';
import { knownWeights } from '../../store/measured/weights.ts';
import { framesAffected } from '../../store/projects/frames.ts';
import { projectNames } from '../../store/projects/projects.ts';
import { orNotFound } from '../../userError.ts';
import type { Planning } from '../plans/planner.ts';
import { newestContent } from './sheetContents.ts';
import { isReshaped, pairOf, type Touched, touchedFrames, whichOf } from './touchedFrames.ts';

/** So many pairs are shown of the frames that get another shape. */
const mostPairs = 60;

/**
 * What a change of a sheet would do to the frames that are made for its places. Nothing is rendered.
 *
 * @throws UserError where the sheet is not there
 */
export async function sheetEffects(
  { db, planner }: Pick<Services, 'db' | 'planner'>,
  id: string,
  content: SheetContent,
): Promise<SheetEffects> {
  const row = orNotFound(await findSheet(db, { id }), 'This sheet');
  const before = await newestContent(db, row);
  const placeIds = before.places.map((place) => `${row.slug}/${place.slug}`);
  const [planning, frames] = [await planner.open(), await framesAffected(db, { placeIds })];
  const { touched, staying } = touchedFrames(row.slug, before, content, frames);
  const reshaped = touched.filter(isReshaped);
  const has = ({ difference }: Touched, ...fields: string[]) =>
    difference.fields.some(({ field }) => fields.includes(field));
  return {
    projects: await countedProjects(db, touched),
    staying,
    reshaped: reshaped.length,
    carried: reshaped.filter(({ framed }) => !framed.frame.composed).length,
    pairs: reshaped.slice(0, mostPairs).map((one) => pairOf(one, planning)),
    tooHeavy: await tooHeavy(
      db,
      planning,
      touched.filter((one) => has(one, 'limit')),
    ),
    formatLost: touched
      .filter(({ framed, after }) => !after.formats.includes(framed.frame.format))
      .map((one) => ({ ...whichOf(one), format: one.framed.frame.format })),
    piecesLost: touched
      .filter((one) => has(one, 'group') && notTaken(one.after, one.framed.original, one.framed.frame) !== null)
      .map(whichOf),
    composedAnew: touched.filter(
      (one) => one.framed.frame.composed && !reshaped.includes(one) && has(one, 'covered', 'shownPart', 'shape'),
    ).length,
  };
}

async function countedProjects(db: Queryable, touched: readonly Touched[]): Promise<SheetEffects['projects']> {
  const counts = new Map<string, number>();
  for (const { framed } of touched) {
    counts.set(framed.frame.projectId, (counts.get(framed.frame.projectId) ?? 0) + 1);
  }
  const names = await projectNames(db, [...counts.keys()]);
  return [...counts].map(([id, frames]) => ({ id, name: names.get(id) ?? '', frames }));
}

/** Files that are known to weigh more than their place would take: a file of the same frame that is still to be made is not known. */
async function tooHeavy(
  db: Queryable,
  planning: Planning,
  touched: readonly Touched[],
): Promise<SheetEffects['tooHeavy']> {
  const measured = touched.flatMap((one) => {
    const measuring = planning.measuringOf(one.framed);
    return measuring ? [{ one, hash: measuring.planned.planHash }] : [];
  });
  const weights = await knownWeights(
    db,
    measured.map(({ hash }) => hash),
  );
  return measured.flatMap(({ one, hash }) => {
    const weight = weights.get(hash);
    if (!weight) return [];
    const { after, framed } = one;
    const all = weight.files.reduce((sum, { bytes }) => sum + bytes, 0);
    const file = { bytes: weight.bytes, budgetBytes: budgetBytes(limitFor(after, framed.frame.format)) };
    const post = after.postLimit && { bytes: all, budgetBytes: budgetBytes(after.postLimit) };
    const over = [file, ...(post ? [post] : [])].find(({ bytes, budgetBytes: most }) => bytes > most);
    return over ? [{ ...whichOf(one), ...over }] : [];
  });
}
