import { type ImportPlan, importPlan, type SheetImport } from '@inkwell/core/bookkeeping';
import { contentOf, SheetContentSchema, type SheetFile, type SpecSheet, type VersionWords } from '@inkwell/core/model';
import type { Services } from '../../services.ts';
import type { Queryable } from '../../store/database.ts';
import { addSheet, findSheet } from '../../store/library/sheets.ts';
import { framesAffected } from '../../store/projects/frames.ts';
import { notFound, UserError } from '../../userError.ts';
import { saveAndMeasure } from '../plans/saveAndMeasure.ts';
import { readBook } from './bookFiles.ts';
import { carryFrames, saveNext } from './changeSheets.ts';
import { newestVersion } from './sheetContents.ts';

type Stores = Pick<Services, 'db' | 'planner'>;

/** Sheets as they stand in a file: those of a book, or one of them. @throws UserError where there is none of that id */
export async function sheetFiles({ planner }: Pick<Stores, 'planner'>, slug: string | null): Promise<SheetFile[]> {
  const { sheets } = await planner.open();
  const wanted = sheets.filter((sheet) => slug === null || sheet.slug === slug);
  if (slug !== null && wanted.length === 0) throw notFound('This sheet');
  return wanted.map((sheet) => ({ slug: sheet.slug, ...contentOf(sheet) }));
}

/**
 * What a file would do to the book, line by line. Nothing is changed.
 *
 * @throws UserError where it cannot be read at all
 */
export async function planImport({ planner }: Pick<Stores, 'planner'>, text: string): Promise<ImportPlan> {
  const { sheets } = await planner.open();
  return planned(sheets, text);
}

function planned(sheets: readonly SpecSheet[], text: string): ImportPlan {
  const read = readBook(text);
  if ('unreadable' in read) throw new UserError(`${read.unreadable} Nothing was taken.`);
  return importPlan(sheets, read);
}

/** A sheet of a file that is to be taken, with the version that it was compared with. */
export interface Taking {
  slug: string;
  version: number | null;
}

/**
 * Takes sheets of a file into the book, all or none, and asks for what has to be measured anew.
 *
 * @throws UserError where the file says no such sheet, or one was changed since it was compared
 */
export async function takeImport(
  services: Stores,
  text: string,
  take: readonly Taking[],
  savedBy: VersionWords['savedBy'],
): Promise<{ taken: number }> {
  const words = { savedBy, note: 'From a file' };
  await saveAndMeasure(
    services,
    async (tx) => {
      const plan = planned((await services.planner.open(tx)).sheets, text);
      const places: string[] = [];
      for (const asked of take) {
        const sheet = plan.sheets.find(({ slug }) => slug === asked.slug);
        if (!sheet || sheet.version !== asked.version) {
          throw new UserError(
            `${sheet?.name ?? asked.slug} is not any more as it was compared with. Nothing was taken: look at the file again.`,
            409,
          );
        }
        places.push(...(await takeSheet(services, tx, sheet, words)));
      }
      return places;
    },
    (tx, placeIds) => framesAffected(tx, { placeIds }),
  );
  return { taken: take.length };
}

/** Gives the ids of the places that are not as they were. */
async function takeSheet(
  services: Stores,
  tx: Queryable,
  { slug, name, content }: SheetImport,
  words: VersionWords,
): Promise<string[]> {
  const whole = SheetContentSchema.safeParse(content);
  if (!whole.success) {
    const [issue] = whole.error.issues;
    throw new UserError(`${name} cannot be taken as a whole: ${issue?.message ?? 'it contradicts itself'}`);
  }
  const row = await findSheet(tx, { slug });
  if (!row) {
    await addSheet(tx, { slug }, whole.data, words);
    return [];
  }
  const saved = await saveNext(tx, row, await newestVersion(tx, row), whole.data, words);
  await carryFrames(services, tx, saved);
  return saved.changed;
}
