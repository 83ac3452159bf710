import { isSame, sheetDifferences, sinceOf } from '@inkwell/core/bookkeeping';
import type { KeptIn, OwnPlace, Place, SheetContent, SheetVersion, SpecSheet, VersionWords } from '@inkwell/core/model';
import { SheetContentSchema } from '@inkwell/core/model';
import { fileNameWord } from '@inkwell/core/naming';
import type { Services } from '../../services.ts';
import type { Queryable } from '../../store/database.ts';
import {
  addSheet,
  addVersion,
  findSheet,
  readVersions,
  type SheetRow,
  setAway,
  setOrder,
  slugsFrom,
  type VersionRow,
  versionsOf,
} from '../../store/library/sheets.ts';
import { framesAffected } from '../../store/projects/frames.ts';
import { projectName } from '../../store/projects/projects.ts';
import { orNotFound, UserError } from '../../userError.ts';
import { checkVersion, saveAndMeasure, saving } from '../plans/saveAndMeasure.ts';

type Stores = Pick<Services, 'db' | 'planner'>;

const what = 'This sheet';
/** Nobody has said who, or why. */
const unsaid: VersionWords = { savedBy: '', note: '' };
/** What one says of a new sheet that nobody has described. */
const ownKind = 'your own sheet';
const today = () => new Date().toISOString().slice(0, 10);

/** A word, numbered from 2 where it is taken. */
export function freeSlug(base: string, taken: ReadonlySet<string>): string {
  let slug = base;
  for (let number = 2; taken.has(slug); number += 1) slug = `${base}-${number}`;
  return slug;
}

/** Ids are words for file names, and no longer than an address bears. */
const longestWord = 60;
const wordOf = (name: string, otherwise: string) =>
  fileNameWord(name).slice(0, longestWord).replace(/-+$/, '') || otherwise;

/** A slug for a new sheet: its name, numbered where that is taken. */
async function newSlug(tx: Queryable, name: string): Promise<string> {
  const base = `own-${wordOf(name, 'sheet')}`;
  return freeSlug(base, new Set(await slugsFrom(tx, base)));
}

/** Content as it is read again: what an earlier version of the program let through and this one does not is left out. */
export function readContent({ content }: VersionRow): SheetContent {
  const whole = SheetContentSchema.safeParse(content).data;
  if (whole) return whole;
  const places = content.places.filter(
    (place) => SheetContentSchema.safeParse({ ...content, places: [place] }).success,
  );
  return SheetContentSchema.parse({ ...content, places });
}

/** The newest version of a sheet. */
async function newestOf(tx: Queryable, { id, version }: SheetRow): Promise<VersionRow> {
  const [row] = await readVersions(tx, [{ sheetId: id, number: version }]);
  return orNotFound(row, what);
}

/** A sheet as the book has it. @throws UserError where it is not there */
export async function sheetBySlug({ planner }: Pick<Stores, 'planner'>, slug: string): Promise<SpecSheet> {
  const { sheets } = await planner.open();
  return orNotFound(
    sheets.find((sheet) => sheet.slug === slug),
    what,
  );
}

/** Makes a sheet. Where a name is given twice, its id is numbered. */
export async function makeSheet(services: Stores, content: SheetContent, words: VersionWords): Promise<SpecSheet> {
  const { slug } = await saving(services, async (tx) =>
    addSheet(tx, { slug: await newSlug(tx, content.name) }, content, words),
  );
  return sheetBySlug(services, slug);
}

/** All versions of a sheet, the newest first. @throws UserError where it is not there */
export async function sheetVersions({ db }: Pick<Stores, 'db'>, id: string): Promise<SheetVersion[]> {
  orNotFound(await findSheet(db, { id }), what);
  return (await versionsOf(db, id)).map(toVersion);
}

const toVersion = (row: VersionRow): SheetVersion => ({
  number: row.number,
  savedAt: row.savedAt.toISOString(),
  savedBy: row.savedBy,
  note: row.note,
  content: readContent(row),
});

/**
 * Saves a sheet that was changed on top of a version, as its next one, and asks for what has to be measured anew of its frames. Where
 * nothing is different, no version is made.
 *
 * @throws UserError with the newest version where it was changed elsewhere
 */
export async function saveSheet(
  services: Stores,
  id: string,
  version: number,
  content: SheetContent,
  words: VersionWords,
): Promise<SpecSheet> {
  const { slug } = await saveAndMeasure(
    services,
    async (tx) => {
      const row = orNotFound(await findSheet(tx, { id }), what);
      const newest = await newestOf(tx, row);
      checkVersion(
        { ...toVersion(newest), version: row.version },
        version,
        'This sheet was changed in another window.',
      );
      return saveNext(tx, row, newest, content, words);
    },
    (tx, { changed }) => framesAffected(tx, { placeIds: changed }),
  );
  return sheetBySlug(services, slug);
}

interface Saved {
  slug: string;
  /** Ids of the places that are not as they were. */
  changed: string[];
}

/** Keeps the next version of a sheet, unless it says the same. */
async function saveNext(
  tx: Queryable,
  row: SheetRow,
  newest: VersionRow,
  content: SheetContent,
  words: VersionWords,
): Promise<Saved> {
  const before = readContent(newest);
  const difference = sheetDifferences(before, content);
  const { slug } = row;
  if (isSame(difference)) return { slug, changed: [] };
  const gone = difference.places.filter(({ kind }) => kind === 'gone');
  await refuseUsed(tx, slug, gone);
  await addVersion(tx, row, content, sinceOf(newest.since, before, content, row.version + 1), words);
  return { slug, changed: difference.places.map((place) => `${slug}/${place.slug}`) };
}

/** A place that frames are made for can be put away, but not taken out. @throws UserError where there is one */
async function refuseUsed(tx: Queryable, slug: string, gone: readonly { slug: string; name: string }[]): Promise<void> {
  if (gone.length === 0) return;
  const used = await framesAffected(tx, { placeIds: gone.map((place) => `${slug}/${place.slug}`) });
  const first = gone.find((place) => used.some(({ frame }) => frame.placeId === `${slug}/${place.slug}`));
  if (!first) return;
  const count = used.filter(({ frame }) => frame.placeId === `${slug}/${first.slug}`).length;
  const frames = count === 1 ? '1 frame is' : `${count} frames are`;
  throw new UserError(
    `${frames} made for ${first.name}. Put the place away instead of taking it out: its frames stay, and it is not offered any more.`,
    409,
  );
}

/** What frames call a place that was made. */
export interface PlaceMade {
  placeId: string;
}

/** Adds a place to a sheet of one's own, which is made where there is none of that name, or to that of one project. */
export async function addPlace(services: Stores, place: OwnPlace, keptIn: KeptIn): Promise<PlaceMade> {
  const inSheet = keptIn.kind === 'sheet';
  const projectId = inSheet ? null : keptIn.projectId;
  const name = inSheet
    ? keptIn.name
    : `Only in ${orNotFound(await projectName(services.db, keptIn.projectId), 'This project')}`.slice(0, 40);
  const slug = inSheet ? `own-${wordOf(keptIn.name, 'sheet')}` : `only-${keptIn.projectId}`;
  return saving(services, async (tx) => {
    const row = await findSheet(tx, { slug });
    const content: SheetContent = row
      ? readContent(await newestOf(tx, row))
      : { name, kind: inSheet ? ownKind : 'for one project', checkedOn: today(), places: [] };
    const taken = new Set(content.places.map((one) => one.slug));
    const added: Place = { ...place, slug: freeSlug(wordOf(place.name, 'place'), taken) };
    const whole = SheetContentSchema.safeParse({ ...content, places: [...content.places, added] });
    if (!whole.success)
      throw new UserError(whole.error.issues[0]?.message ?? 'This place cannot be kept in this sheet.');
    if (row) await saveNext(tx, row, await newestOf(tx, row), whole.data, unsaid);
    else await addSheet(tx, { slug, projectId }, whole.data, unsaid);
    return { placeId: `${slug}/${added.slug}` };
  });
}

/** Puts a sheet away, or takes it back: its frames stay, and it is not offered meanwhile. */
export async function putSheetAway(services: Stores, slug: string, isAway: boolean): Promise<void> {
  await sheetBySlug(services, slug);
  await setAway(services.db, slug, isAway);
}

/** Moves a sheet before another one; to the end where that is null. @throws UserError where one of them is not there */
export async function moveSheet(services: Stores, slug: string, before: string | null): Promise<void> {
  await saving(services, async (tx) => {
    const slugs = (await services.planner.open(tx)).sheets.map((sheet) => sheet.slug);
    if (!slugs.includes(slug) || (before !== null && !slugs.includes(before)))
      throw new UserError(`${what} is not there any more. Go back and reload.`, 404);
    if (before === slug) return;
    const others = slugs.filter((one) => one !== slug);
    others.splice(before === null ? others.length : others.indexOf(before), 0, slug);
    await setOrder(tx, others);
  });
}
