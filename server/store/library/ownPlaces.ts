import { type KeptIn, type OwnPlace, PlaceSchema, type SpecSheet } from '@inkwell/core/model';
import { fileNameWord } from '@inkwell/core/naming';
import { and, asc, count, eq, isNull, like, sql } from 'drizzle-orm';
import type { Database, Queryable } from '../database.ts';
import { frames, ownPlaces } from '../schema/index.ts';
import { setDeleted } from '../setDeleted.ts';

/** As the schema of a sheet allows. */
const longestSheetName = 40;

type Row = typeof ownPlaces.$inferSelect;

/** The id by which frames refer to a place that somebody made. */
export const placeIdOf = ({ sheetSlug, slug }: Pick<Row, 'sheetSlug' | 'slug'>) => `${sheetSlug}/${slug}`;

/** The sheets that people made, with their places in the order in which they were made. */
export async function ownSheets(db: Queryable): Promise<SpecSheet[]> {
  const rows = await db
    .select()
    .from(ownPlaces)
    .where(isNull(ownPlaces.deletedAt))
    .orderBy(asc(ownPlaces.sheetName), asc(ownPlaces.createdAt));
  const sheets = new Map<string, SpecSheet>();
  for (const row of rows) {
    const checkedOn = row.changedAt.toISOString().slice(0, 10);
    // One from before there were bounds is left out: nothing could be made for it.
    const place = PlaceSchema.safeParse({
      ...row.place,
      slug: row.slug,
      own: { id: row.id, version: row.version },
    }).data;
    if (!place) continue;
    const sheet = sheets.get(row.sheetSlug);
    if (sheet) {
      sheet.places.push(place);
      if (checkedOn < sheet.checkedOn) sheet.checkedOn = checkedOn;
    } else {
      sheets.set(row.sheetSlug, {
        slug: row.sheetSlug,
        name: row.sheetName,
        kind: row.projectId ? 'for one project' : 'your own sheet',
        checkedOn,
        ...(row.projectId ? { projectId: row.projectId } : {}),
        places: [place],
      });
    }
  }
  return [...sheets.values()];
}

/** Keeps a new place; its slug is its name, numbered where that is taken. */
export async function addOwnPlace(db: Database, place: OwnPlace, keptIn: KeptIn, sheetName: string): Promise<Row> {
  const inSheet = keptIn.kind === 'sheet';
  const sheetSlug = inSheet ? `own-${fileNameWord(keptIn.name) || 'sheet'}` : `only-${keptIn.projectId}`;
  const base = fileNameWord(place.name) || 'place';
  return db.transaction(async (tx) => {
    await tx.execute(sql`select pg_advisory_xact_lock(hashtext(${sheetSlug}))`);
    const taken = new Set(
      (
        await tx
          .select({ slug: ownPlaces.slug })
          .from(ownPlaces)
          .where(and(eq(ownPlaces.sheetSlug, sheetSlug), like(ownPlaces.slug, `${base}%`)))
      ).map((one) => one.slug),
    );
    let slug = base;
    for (let number = 2; taken.has(slug); number += 1) slug = `${base}-${number}`;
    const [row] = await tx
      .insert(ownPlaces)
      .values({
        sheetSlug,
        sheetName: sheetName.slice(0, longestSheetName),
        projectId: inSheet ? null : keptIn.projectId,
        slug,
        place,
      })
      .returning();
    if (!row) throw new Error('The place was not stored.');
    return row;
  });
}

export async function findOwnPlace(db: Queryable, id: string): Promise<Row | null> {
  const [row] = await db
    .select()
    .from(ownPlaces)
    .where(and(eq(ownPlaces.id, id), isNull(ownPlaces.deletedAt)));
  return row ?? null;
}

/** Saves a place changed on top of `version`. Null where somebody else saved meanwhile, or it is gone. */
export async function saveOwnPlace(db: Queryable, id: string, version: number, place: OwnPlace): Promise<Row | null> {
  const [row] = await db
    .update(ownPlaces)
    .set({ place, version: sql`${ownPlaces.version} + 1`, changedAt: new Date() })
    .where(and(eq(ownPlaces.id, id), eq(ownPlaces.version, version), isNull(ownPlaces.deletedAt)))
    .returning();
  return row ?? null;
}

/** How many frames, of whatever project, are for a place. */
export async function framesAtPlace(db: Queryable, placeId: string): Promise<number> {
  const [row] = await db.select({ count: count() }).from(frames).where(eq(frames.placeId, placeId));
  return row?.count ?? 0;
}

/** Puts a place aside (`deleted` true) or takes it back. */
export const setOwnPlaceDeleted = (db: Queryable, id: string, deleted: boolean): Promise<boolean> =>
  setDeleted(db, ownPlaces, id, deleted);
