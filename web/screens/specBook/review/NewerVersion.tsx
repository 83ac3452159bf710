import { mergedSheets, sheetDifferences } from '@inkwell/core/bookkeeping';
import type { SheetVersion } from '@inkwell/core/model';
import { Button } from 'antd';
import { useState } from 'react';
import { type SheetDraft, useSheetDrafts } from '../edit/sheetDraft.ts';
import { Differences } from './Differences.tsx';

/** Says that a sheet was changed elsewhere while it was changed here: what the other has, what is here, and the ways on. */
export function NewerVersion({ id, draft, newer }: { id: string; draft: SheetDraft; newer: SheetVersion }) {
  const { rebase } = useSheetDrafts();
  const [open, setOpen] = useState(false);
  const { before, content, base } = draft;
  return (
    <section role="alert" className="edit-newer">
      <div className="row spread wrap">
        <span>
          <strong>
            Version {newer.number} was saved elsewhere{newer.savedBy && ` by ${newer.savedBy}`}.
          </strong>{' '}
          Yours began on version {base} and cannot be saved on top of it as it is.
        </span>
        <span className="row">
          <Button size="small" aria-expanded={open} onClick={() => setOpen(!open)}>
            Show both
          </Button>
          <Button
            size="small"
            type="primary"
            onClick={() => rebase(id, newer.number, newer.content, mergedSheets(before, content, newer.content))}
          >
            Put yours on top of it
          </Button>
          <Button size="small" onClick={() => rebase(id, newer.number, newer.content, newer.content)}>
            Take the other
          </Button>
        </span>
      </div>
      {open && (
        <div className="newer-both">
          <div>
            <h3>What the other has changed</h3>
            <Differences
              difference={sheetDifferences(before, newer.content)}
              then={`Version ${base}`}
              now={`Version ${newer.number}`}
            />
          </div>
          <div>
            <h3>What you have changed</h3>
            <Differences difference={sheetDifferences(before, content)} then={`Version ${base}`} now="Yours" />
          </div>
        </div>
      )}
    </section>
  );
}
