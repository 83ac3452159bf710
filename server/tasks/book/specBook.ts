import { withMeasured } from '@inkwell/core/dryRunning';
import {
  type Pins,
  type Place,
  type PlaceOfNetwork,
  PlaceSchema,
  placesById,
  type SpecSheet,
  SpecSheetSchema,
} from '@inkwell/core/model';
import { LRUCache } from 'lru-cache';
import { shippedSheets } from '../../standins/shippedSheets.ts';
import type { Queryable } from '../../store/database.ts';
import { listSheetFindings } from '../../store/library/sheetFindings.ts';
import {
  listSheets,
  pinnedVersions,
  readVersions,
  type SheetRow,
  shelfPlaces,
  type VersionRow,
} from '../../store/library/sheets.ts';

/** All sheets, and their places by id. */
export interface Book {
  readonly sheets: readonly SpecSheet[];
  readonly places: ReadonlyMap<string, PlaceOfNetwork>;
}

/** The spec book as it is now. */
export interface SpecBook extends Book {
  /** The book as a project has it that stays on some versions. */
  withPins(pins: Pins): Book;
}

/** Contents of so many versions are kept. */
const mostKept = 2000;

const bookOf = (sheets: readonly SpecSheet[]): Book => ({ sheets, places: placesById(sheets) });

/** Reads the spec book: the sheets that ship, with what was measured of them, and those that people made. */
export class SpecBooks {
  private readonly shipped = shippedSheets();
  /** By sheet and number: no version that is stored for good is ever changed. */
  private readonly known = new LRUCache<string, SpecSheet>({ max: mostKept });

  /** @param isLasting whether what is read may not be taken back any more, as it may in a transaction */
  async read(db: Queryable, isLasting: boolean): Promise<SpecBook> {
    const [rows, shelf, pinned] = [await listSheets(db), await shelfPlaces(db), await pinnedVersions(db)];
    const bySlug = new Map(rows.map((row) => [row.slug, row]));
    const wanted = [
      ...rows.map((row) => ({ row, number: row.version })),
      ...pinned.flatMap(({ slug, number }) => {
        const row = bySlug.get(slug);
        return row ? [{ row, number }] : [];
      }),
    ];
    const read = await this.contents(db, wanted, isLasting);
    const standing = (sheet: SpecSheet): SpecSheet =>
      shelf.get(sheet.slug)?.isAway ? { ...sheet, isAway: true } : sheet;
    const own = rows.flatMap((row) => read.get(keyOf(row, row.version)) ?? []);
    const sheets = [...withMeasured(this.shipped, await listSheetFindings(db)), ...own]
      .map((sheet, index) => ({ sheet: standing(sheet), at: shelf.get(sheet.slug)?.position ?? 1e6 + index }))
      .sort((a, b) => a.at - b.at)
      .map(({ sheet }) => sheet);
    const newest = bookOf(sheets);
    const made = new Map<string, Book>();
    return {
      ...newest,
      withPins(pins) {
        const entries = Object.entries(pins);
        if (entries.length === 0) return newest;
        const key = JSON.stringify(entries.sort());
        const asPinned = (sheet: SpecSheet): SpecSheet => {
          const [row, number] = [bySlug.get(sheet.slug), pins[sheet.slug]];
          const then = row && number !== undefined ? read.get(keyOf(row, number)) : undefined;
          return then && row && number !== row.version ? standing({ ...then, newest: row.version }) : sheet;
        };
        const book = made.get(key) ?? bookOf(sheets.map(asPinned));
        made.set(key, book);
        return book;
      },
    };
  }

  /** What versions of sheets say, by `keyOf`. */
  private async contents(
    db: Queryable,
    wanted: readonly { row: SheetRow; number: number }[],
    isLasting: boolean,
  ): Promise<Map<string, SpecSheet>> {
    const found = new Map<string, SpecSheet>();
    const missing = wanted.filter(({ row, number }) => {
      const known = isLasting ? this.known.get(keyOf(row, number)) : undefined;
      if (known) found.set(keyOf(row, number), known);
      return !known;
    });
    const rows = new Map(missing.map(({ row }) => [row.id, row]));
    for (const version of await readVersions(
      db,
      missing.map(({ row, number }) => ({ sheetId: row.id, number })),
    )) {
      const row = rows.get(version.sheetId);
      const sheet = row && sheetOf(row, version);
      if (!sheet || !row) continue;
      found.set(keyOf(row, version.number), sheet);
      if (isLasting) this.known.set(keyOf(row, version.number), sheet);
    }
    return found;
  }
}

const keyOf = ({ id }: SheetRow, number: number) => `${id} ${number}`;

/** A sheet from what is stored; null where that is none. A place from before there were bounds is left out: nothing could be made for it. */
function sheetOf({ id, slug, projectId }: SheetRow, { number, content, since }: VersionRow): SpecSheet | null {
  const places = content.places.flatMap((place): Place | [] => {
    const own = { id, version: since[place.slug] ?? number };
    return PlaceSchema.safeParse({ ...place, own }).data ?? [];
  });
  const sheet = { ...content, slug, own: { id, version: number }, ...(projectId ? { projectId } : {}), places: [] };
  const read = SpecSheetSchema.safeParse(sheet).data;
  return read ? { ...read, places } : null;
}
