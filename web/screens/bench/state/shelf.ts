import equal from 'fast-deep-equal';
import { z } from 'zod';
import type { History } from './history.ts';
import { type ForRows, type Kind, kinds } from './kinds.ts';

const RowsSchema = z.record(z.string(), z.looseObject({}));
const StepSchema = z.object({ frames: RowsSchema, originals: RowsSchema, projects: RowsSchema, finishes: RowsSchema });
const LeftRowsSchema = z.record(
  z.string(),
  z.object({
    settings: z.looseObject({}),
    version: z.int(),
    unanswered: z.array(z.looseObject({})).default([]),
  }),
);
/** What a page has kept of a bench. What the settings themselves say is read when the row is there: see `restored`. */
const KeptSchema = z.object({
  /** When it was written, in milliseconds. */
  written: z.number().default(0),
  unsaved: z.object({
    frames: LeftRowsSchema,
    originals: LeftRowsSchema,
    projects: LeftRowsSchema,
    finishes: LeftRowsSchema,
  }),
  past: z.array(StepSchema),
  future: z.array(StepSchema),
});
type Kept = z.infer<typeof KeptSchema>;

/** What was not saved when the page went: the settings that differ, the version they were made on, and what was sent of it. */
export interface LeftRow {
  settings: object;
  version: number;
  unanswered: readonly object[];
}
export type LeftRows = ForRows<LeftRow>;

/** Where benches are kept between reloads; `localStorage` has this shape. */
export type Drawer = Pick<Storage, 'getItem' | 'setItem' | 'removeItem' | 'key' | 'length'>;

const prefix = 'inkwell.bench.';
/** Characters that one project may take, and all of them: browsers allow about five million. */
const mostOfProject = 1_000_000;
const mostOfAll = 3_000_000;

const noRows = (): LeftRows => ({ frames: {}, originals: {}, projects: {}, finishes: {} });

/** What is kept under a key; null where there is nothing, or nothing that this program can read. */
function read(drawer: Drawer, key: string): Kept | null {
  try {
    return KeptSchema.parse(JSON.parse(drawer.getItem(key) ?? 'null'));
  } catch {
    return null;
  }
}

const hasRows = (left: LeftRows) => kinds.some((kind) => Object.keys(left[kind]).length > 0);

/**
 * Keeps the unsaved changes and the steps of undo of one project between reloads, for every page by itself: two that show the
 * same project may hold different changes of the same row. Storage that is refused or full costs only that: nothing throws.
 */
export class Shelf {
  private readonly key: string;
  private readonly drawer: Drawer | null;
  /** What this page goes on with in place of pages that may be closed. */
  private readonly taken: { key: string; kind: Kind; id: string; row: LeftRow }[] = [];
  private goesOnFrom: readonly string[] = [];
  private hasFailed = false;

  /**
   * @param drawer opens the storage; browsers that refuse it throw already then
   * @param page the same after a reload, and another for every other page that has the project open
   */
  constructor(
    private readonly projectId: string,
    drawer: () => Drawer,
    page: string,
  ) {
    this.key = `${prefix}${projectId}.${page}`;
    this.drawer = this.trying(drawer) ?? null;
  }

  /** Whether what is kept will be there again. */
  get works(): boolean {
    return !this.hasFailed;
  }

  /**
   * What this page had kept of the project, and what other pages have left unsaved of other rows. A page that has kept nothing
   * yet goes on with the steps of undo of the last that has.
   */
  open(): { left: LeftRows; history: History } {
    const nothing = { left: noRows(), history: { past: [], future: [] } };
    return this.trying(() => this.opened(this.drawer)) ?? nothing;
  }

  private opened(drawer: Drawer | null): { left: LeftRows; history: History } {
    if (!drawer) throw new Error('There is no storage.');
    tidy(drawer);
    const own = read(drawer, this.key);
    const others = this.othersOfProject(drawer);
    const left = structuredClone(own?.unsaved ?? noRows());
    for (const { key, kept } of others) {
      for (const kind of kinds) {
        for (const [id, row] of Object.entries(kept.unsaved[kind])) {
          if (left[kind][id]) continue;
          left[kind][id] = row;
          this.taken.push({ key, kind, id, row });
        }
      }
    }
    const { past, future } = own ?? others[0]?.kept ?? { past: [], future: [] };
    if (!own) this.goesOnFrom = others.map(({ key }) => key);
    return { left, history: { past, future } };
  }

  /** Keeps what is unsaved on this page, and the steps of undo. */
  keep(unsaved: LeftRows, { past, future }: History): void {
    this.trying(() => {
      const { drawer, key } = this;
      if (!drawer) throw new Error('There is no storage.');
      const kept = { written: Date.now(), unsaved, past: [...past], future: [...future] };
      let text = JSON.stringify(kept);
      while (text.length > mostOfProject && (kept.past.length > 0 || kept.future.length > 0)) {
        const most = kept.past.length > 0 ? kept.past : kept.future;
        most.splice(0, Math.ceil(most.length / 4));
        text = JSON.stringify(kept);
      }
      write(drawer, key, text, JSON.stringify({ ...kept, past: [], future: [] }));
      this.takeOver(drawer);
      this.hasFailed = false;
    });
  }

  /** What is kept here now, other pages need not keep any more; what they have changed since stays theirs. */
  private takeOver(drawer: Drawer): void {
    for (const { key, kind, id, row } of this.taken.splice(0)) {
      const kept = read(drawer, key);
      if (!kept || !equal(kept.unsaved[kind][id], row)) continue;
      delete kept.unsaved[kind][id];
      drawer.setItem(key, JSON.stringify(kept));
    }
    // A page that is still open keeps its steps again with its next change.
    for (const key of this.goesOnFrom) clearOut(drawer, key);
    this.goesOnFrom = [];
  }

  /** What other pages have kept of this project, the latest first. The first version kept all pages under one key. */
  private othersOfProject(drawer: Drawer): { key: string; kept: Kept }[] {
    const first = prefix + this.projectId;
    return keysIn(drawer)
      .filter((key) => key !== this.key && (key === first || key.startsWith(`${first}.`)))
      .flatMap((key) => {
        const kept = read(drawer, key);
        return kept ? [{ key, kept }] : [];
      })
      .sort((a, b) => b.kept.written - a.kept.written);
  }

  private trying<Value>(task: () => Value): Value | undefined {
    try {
      return task();
    } catch {
      // Refused by the browser's settings, or full: `works` says so, and the bench goes on without.
      this.hasFailed = true;
      return undefined;
    }
  }
}

const keysIn = (drawer: Drawer): string[] =>
  Array.from({ length: drawer.length }, (_, index) => drawer.key(index) ?? '').filter((key) => key.startsWith(prefix));

/** All keys, those that were written longest ago first. */
const oldestFirst = (drawer: Drawer): string[] =>
  keysIn(drawer)
    .map((key) => ({ key, written: read(drawer, key)?.written ?? 0 }))
    .sort((a, b) => a.written - b.written)
    .map(({ key }) => key);

/** Lets go of what was written longest ago until there is room for one project more. */
function tidy(drawer: Drawer): void {
  const keys = oldestFirst(drawer);
  const lengthOf = (key: string) => drawer.getItem(key)?.length ?? 0;
  let taken = keys.reduce((sum, key) => sum + lengthOf(key), 0);
  for (const key of keys) {
    if (taken <= mostOfAll - mostOfProject) return;
    taken -= lengthOf(key);
    clearOut(drawer, key);
    taken += lengthOf(key);
  }
}

/** Writes, and makes room for it; at last only `least`. @throws where not even that can be; then nothing older stays either */
function write(drawer: Drawer, key: string, text: string, least: string): void {
  if (tryToSet(drawer, key, text)) return;
  for (const other of oldestFirst(drawer)) {
    if (other === key) continue;
    clearOut(drawer, other);
    if (tryToSet(drawer, key, text)) return;
  }
  drawer.removeItem(key);
  drawer.setItem(key, least);
}

/** Lets go of the steps of undo under a key, and of all of it where nothing in it is unsaved. */
function clearOut(drawer: Drawer, key: string): void {
  const kept = read(drawer, key);
  if (!kept || !hasRows(kept.unsaved)) drawer.removeItem(key);
  else tryToSet(drawer, key, JSON.stringify({ ...kept, past: [], future: [] }));
}

function tryToSet(drawer: Drawer, key: string, text: string): boolean {
  try {
    drawer.setItem(key, text);
    return true;
  } catch {
    return false;
  }
}
