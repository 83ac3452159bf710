import { contentOf, type SheetContent, type SheetVersion, type SpecSheet } from '@inkwell/core/model';
import { useEffect } from 'react';
import { useParams, useSearchParams } from 'react-router';
import { useSheetVersions } from '../../../api/library/sheets.ts';
import { useSpecBook } from '../../../api/library/specBook.ts';
import { newContent, newId, type SheetDraft, useSheetDrafts } from './sheetDraft.ts';

/** The sheet that is changed on this screen, with its draft. */
export interface EditedSheet {
  id: string;
  /** As the book has it; undefined of one that is new. */
  sheet: SpecSheet | undefined;
  versions: readonly SheetVersion[];
  draft: SheetDraft | undefined;
  /** The newest version, where the draft was begun on an older one. */
  newer: SheetVersion | null;
  isMissing: boolean;
  /** Where it is changed, and where that is looked over. */
  paths: { edit: string; review: string };
  error: unknown;
  change: (by: (content: SheetContent) => SheetContent, step?: string) => void;
}

const none: SheetVersion[] = [];

function pathsOf(edit: string, from: string | null): EditedSheet['paths'] {
  const query = from ? `?from=${from}` : '';
  return { edit: `${edit}${query}`, review: `${edit}/review${query}` };
}

/** Begins a draft of the sheet of this address, where there is none yet. */
export function useEditedSheet(): EditedSheet {
  const { slug } = useParams();
  const [search] = useSearchParams();
  const { data: sheets, error } = useSpecBook();
  const isNew = slug === undefined;
  const from = search.get('from');
  const sheet = sheets?.find((one) => one.slug === (isNew ? from : slug));
  const id = isNew ? newId(from) : (sheet?.own?.id ?? '');
  const draft = useSheetDrafts(({ drafts }) => drafts[id]);
  const { begin, change } = useSheetDrafts();
  const { data: versions = none, error: unread } = useSheetVersions(isNew ? undefined : sheet?.own?.id);
  useEffect(() => {
    if (draft || !sheets) return;
    if (isNew) {
      const content = newContent(sheet ?? null);
      begin(id, { base: null, before: { ...content, places: [] }, content });
    } else if (sheet?.own) {
      const content = contentOf(sheet);
      begin(sheet.own.id, { base: sheet.own.version, before: content, content });
    }
  }, [id, draft, sheets, sheet, isNew, begin]);
  const [newest] = versions;
  return {
    id,
    sheet: isNew ? undefined : sheet,
    versions,
    draft,
    newer: draft?.base && newest && newest.number > draft.base ? newest : null,
    paths: isNew ? pathsOf('/spec-book/new', from) : pathsOf(`/spec-book/${slug}/edit`, null),
    isMissing: sheets !== undefined && !isNew && !sheet?.own,
    error: error ?? unread,
    change: (by, step) => change(id, by, step),
  };
}
