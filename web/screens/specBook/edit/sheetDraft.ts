import { isSame, sheetDifferences } from '@inkwell/core/bookkeeping';
import { contentOf, emptySheet, type SheetContent, SheetContentSchema, type SpecSheet } from '@inkwell/core/model';
import dayjs from 'dayjs';
import { z } from 'zod';
import { create } from 'zustand';
import { persist } from 'zustand/middleware';

/** A sheet that is being changed and not saved yet. */
export interface SheetDraft {
  /** The version that it was begun on; null of a sheet that is new. */
  base: number | null;
  /** What that says. */
  before: SheetContent;
  content: SheetContent;
  past: SheetContent[];
  future: SheetContent[];
}

interface Drafts {
  /** By the id of the sheet, or by `newId`. */
  drafts: Record<string, SheetDraft>;
  begin(id: string, draft: Pick<SheetDraft, 'base' | 'before' | 'content'>): void;
  change(id: string, change: (content: SheetContent) => SheetContent): void;
  undo(id: string): void;
  redo(id: string): void;
  drop(id: string): void;
  /** Goes on from a newer version. */
  rebase(id: string, base: number, before: SheetContent, content: SheetContent): void;
}

/** So many steps can be taken back. */
const mostSteps = 100;
/** The id of the draft of a new sheet: one for every sheet that it can begin with, so that none takes the place of another. */
export const newId = (from: string | null): string => `new ${from ?? ''}`.trim();

/** Numbers may be wrong while they are typed: a draft is kept as it is, and only its outline is looked at when it is read again. */
const KeptSchema = z.object({
  drafts: z.record(
    z.string(),
    z.looseObject({
      base: z.int().nullable(),
      before: SheetContentSchema,
      content: z.looseObject({
        name: z.string(),
        kind: z.string(),
        places: z.array(z.looseObject({ slug: z.string() })),
      }),
    }),
  ),
});

/** Drafts outlive a reload: what was typed is only lost when somebody says so. */
export const useSheetDrafts = create<Drafts>()(
  persist(
    (set) => {
      const change = (id: string, next: (draft: SheetDraft) => SheetDraft) =>
        set(({ drafts }) => {
          const draft = drafts[id];
          return draft ? { drafts: { ...drafts, [id]: next(draft) } } : {};
        });
      return {
        drafts: {},
        begin: (id, draft) =>
          set(({ drafts }) => ({ drafts: { ...drafts, [id]: { ...draft, past: [], future: [] } } })),
        change: (id, by) =>
          change(id, (draft) => ({
            ...draft,
            content: by(draft.content),
            past: [...draft.past, draft.content].slice(-mostSteps),
            future: [],
          })),
        undo: (id) =>
          change(id, (draft) => {
            const last = draft.past.at(-1);
            if (!last) return draft;
            return { ...draft, content: last, past: draft.past.slice(0, -1), future: [draft.content, ...draft.future] };
          }),
        redo: (id) =>
          change(id, (draft) => {
            const [next, ...future] = draft.future;
            return next ? { ...draft, content: next, past: [...draft.past, draft.content], future } : draft;
          }),
        rebase: (id, base, before, content) => change(id, () => ({ base, before, content, past: [], future: [] })),
        drop: (id) =>
          set(({ drafts }) => ({ drafts: Object.fromEntries(Object.entries(drafts).filter(([key]) => key !== id)) })),
      };
    },
    {
      name: 'inkwell-sheet-drafts',
      partialize: ({ drafts }) => ({
        drafts: Object.fromEntries(
          Object.entries(drafts).map(([id, draft]) => [id, { ...draft, past: [], future: [] }]),
        ),
      }),
      merge: (kept, current) => {
        const read = KeptSchema.safeParse(kept);
        return read.success ? { ...current, drafts: (kept as Pick<Drafts, 'drafts'>).drafts } : current;
      },
    },
  ),
);

/** Whether a draft says anything else than the version that it was begun on. */
export const isChanged = ({ base, before, content }: SheetDraft): boolean =>
  base === null || !isSame(sheetDifferences(before, content));

export const today = (): string => dayjs().format('YYYY-MM-DD');

/** An empty sheet, or one that begins with what another one says, under a name of its own. */
export function newContent(from: SpecSheet | null): SheetContent {
  if (!from) return emptySheet('My network', today());
  const { places, ...content } = contentOf(from);
  const own = from.own ? from.kind : `like ${from.name}: ${from.kind}`.slice(0, 60);
  return {
    ...content,
    name: `${from.name} copy`.slice(0, 40),
    kind: own,
    places: places.filter(({ isAway }) => !isAway),
  };
}
