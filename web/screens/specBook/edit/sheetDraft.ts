import { isSame, sheetDifferences } from '@inkwell/core/bookkeeping';
import { contentOf, emptySheet, type SheetContent, SheetContentSchema, type SpecSheet } from '@inkwell/core/model';
import equal from 'fast-deep-equal';
import { z } from 'zod';
import { create } from 'zustand';
import { persist } from 'zustand/middleware';
import { today } from '../../../parts/today.ts';

/** A sheet that is being changed and not saved yet. */
export interface SheetDraft {
  /** The version that it was begun on; null of a sheet that is new. */
  base: number | null;
  /** What that says. */
  before: SheetContent;
  content: SheetContent;
  past: SheetContent[];
  future: SheetContent[];
  /** What the last change was a part of; null where it was a step by itself. */
  step: string | null;
}

interface Drafts {
  /** By the id of the sheet, or by `newId`. */
  drafts: Record<string, SheetDraft>;
  begin(id: string, draft: Pick<SheetDraft, 'base' | 'before' | 'content'>): void;
  /** Changes that follow each other under one `step` are taken back together: a drag, or a word that is typed. */
  change(id: string, change: (content: SheetContent) => SheetContent, step?: string): void;
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

const keptAs = 'inkwell-sheet-drafts';
const noSteps = { past: [], future: [], step: null };

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
        begin: (id, draft) => set(({ drafts }) => ({ drafts: { ...drafts, [id]: { ...draft, ...noSteps } } })),
        change: (id, by, step) =>
          change(id, (draft) => ({
            ...draft,
            content: by(draft.content),
            past:
              step !== undefined && step === draft.step ? draft.past : [...draft.past, draft.content].slice(-mostSteps),
            future: [],
            step: step ?? null,
          })),
        undo: (id) =>
          change(id, (draft) => {
            const last = draft.past.at(-1);
            if (!last) return draft;
            const { past, future, content } = draft;
            return { ...draft, content: last, past: past.slice(0, -1), future: [content, ...future], step: null };
          }),
        redo: (id) =>
          change(id, (draft) => {
            const [next, ...future] = draft.future;
            const past = [...draft.past, draft.content];
            return next ? { ...draft, content: next, past, future, step: null } : draft;
          }),
        rebase: (id, base, before, content) => change(id, () => ({ base, before, content, ...noSteps })),
        drop: (id) =>
          set(({ drafts }) => ({ drafts: Object.fromEntries(Object.entries(drafts).filter(([key]) => key !== id)) })),
      };
    },
    {
      name: keptAs,
      partialize: ({ drafts }) => ({
        drafts: Object.fromEntries(Object.entries(drafts).map(([id, draft]) => [id, { ...draft, ...noSteps }])),
      }),
      merge: (kept, current) => {
        if (!KeptSchema.safeParse(kept).success) return current;
        const { drafts } = kept as Pick<Drafts, 'drafts'>;
        // What is the same here keeps its steps.
        const known = Object.entries(drafts).map(([id, draft]) => {
          const here = current.drafts[id];
          return [id, here && equal(here.content, draft.content) ? here : draft] as const;
        });
        return { ...current, drafts: Object.fromEntries(known) };
      },
    },
  ),
);

// All windows share what is kept: one that wrote without the others' drafts would lose them.
window.addEventListener('storage', ({ key }) => {
  if (key === keptAs) void useSheetDrafts.persist.rehydrate();
});

/** Whether a draft says anything else than the version that it was begun on. */
export const isChanged = ({ base, before, content }: SheetDraft): boolean =>
  base === null || !isSame(sheetDifferences(before, content));

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
