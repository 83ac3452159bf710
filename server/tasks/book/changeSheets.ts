import { freeSlug, isSame, newPlaceSlug, ownSheetSlug, sheetDifferences, sinceOf } from '@inkwell/core/bookkeeping';
import {
  emptySheet,
  type KeptIn,
  type OwnPlace,
  type Place,
  type SheetContent,
  SheetContentSchema,
  type SpecSheet,
  type VersionWords,
} from '@inkwell/core/model';
import type { Services } from '../../services.ts';
import type { Queryable } from '../../store/database.ts';
import {
  addSheet,
  addVersion,
  findSheet,
  type SheetRow,
  slugsFrom,
  type VersionRow,
} from '../../store/library/sheets.ts';
import { framesAffected, saveFrames } from '../../store/projects/frames.ts';
import { projectName } from '../../store/projects/projects.ts';
import { orNotFound, UserError } from '../../userError.ts';
import { checkVersion, saveAndMeasure, saving } from '../plans/saveAndMeasure.ts';
import { newestVersion, readContent, toVersion } from './sheetContents.ts';
import { carriedChange, touchedFrames } from './touchedFrames.ts';

type Stores = Pick<Services, 'db' | 'planner'>;

const what = 'This sheet';
/** Nobody has said who, or why. */
const unsaid: VersionWords = { savedBy: '', note: '' };
const today = () => new Date().toISOString().slice(0, 10);

/** A slug for a new sheet: its name, numbered where that is taken. */
export async function newSlug(tx: Queryable, name: string): Promise<string> {
  const base = ownSheetSlug(name);
  return freeSlug(base, new Set(await slugsFrom(tx, base)));
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
      const newest = await newestVersion(tx, row);
      checkVersion(
        { ...toVersion(newest), version: row.version },
        version,
        'This sheet was changed in another window.',
      );
      const saved = await saveNext(tx, row, newest, content, words);
      await carryFrames(services, tx, saved);
      return saved;
    },
    (tx, { changed }) => framesAffected(tx, { placeIds: changed }),
  );
  return sheetBySlug(services, slug);
}

/** Carries the windows over that hands have set at places that have other dimensions now. */
export async function carryFrames(
  { planner }: Stores,
  tx: Queryable,
  { slug, before, after, changed }: Saved,
): Promise<void> {
  const frames = await framesAffected(tx, { placeIds: changed });
  const { touched } = touchedFrames(slug, before, after, frames);
  const planning = await planner.open(tx);
  for (const one of touched) {
    const change = carriedChange(one, planning);
    if (change) await saveFrames(tx, [one.framed.frame.id], change);
  }
}

export interface Saved {
  slug: string;
  before: SheetContent;
  after: SheetContent;
  /** Ids of the places that are not as they were. */
  changed: string[];
}

/** Keeps the next version of a sheet, unless it says the same. */
export async function saveNext(
  tx: Queryable,
  row: SheetRow,
  newest: VersionRow,
  content: SheetContent,
  words: VersionWords,
): Promise<Saved> {
  const before = readContent(newest);
  const difference = sheetDifferences(before, content);
  const { slug } = row;
  if (isSame(difference)) return { slug, before, after: content, changed: [] };
  const gone = difference.places.filter(({ kind }) => kind === 'gone');
  await refuseUsed(tx, slug, gone);
  await addVersion(tx, row, content, sinceOf(newest.since, before, content, row.version + 1), words);
  const changed = difference.places.map((place) => `${slug}/${place.slug}`);
  return { slug, before, after: content, changed };
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
  const slug = inSheet ? ownSheetSlug(keptIn.name) : `only-${keptIn.projectId}`;
  return saving(services, async (tx) => {
    const row = await findSheet(tx, { slug });
    const newest = row && (await newestVersion(tx, row));
    const content = newest ? readContent(newest) : emptySheet(name, today(), inSheet ? undefined : 'for one project');
    const added: Place = { ...place, slug: newPlaceSlug(place.name, content.places) };
    const whole = SheetContentSchema.safeParse({ ...content, places: [...content.places, added] });
    if (!whole.success)
      throw new UserError(whole.error.issues[0]?.message ?? 'This place cannot be kept in this sheet.');
    if (row && newest) await saveNext(tx, row, newest, whole.data, unsaid);
    else await addSheet(tx, { slug, projectId }, whole.data, unsaid);
    return { placeId: `${slug}/${added.slug}` };
  });
}
