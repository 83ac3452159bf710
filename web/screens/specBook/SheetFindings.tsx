import type { SheetChange, SheetFinding, SpecSheet } from '@inkwell/core/model';
import { Button } from 'antd';
import dayjs from 'dayjs';
import { useChangeFinding } from '../../api/library/sheetFindings.ts';
import { ForEditors } from '../../parts/ForEditors.tsx';
import { useUndoNote } from '../../parts/useUndoNote.tsx';

const fieldWords: Record<SheetChange['field'], string> = {
  limit: 'the limit',
  formats: 'the formats',
  height: 'the dimensions',
  'most panels': 'the panels',
  gap: 'the gaps between tiles',
  'long edge': 'the long edge after the upload',
  encoding: 'the encoding after the upload',
};

/** Where a network did otherwise in a dry run than its sheet says: each number with what was measured, to be taken over with one press. */
export function SheetFindings({ sheet, findings }: { sheet: SpecSheet; findings: readonly SheetFinding[] }) {
  const told = findings.filter(({ network, state }) => network === sheet.slug && state !== 'dismissed');
  if (told.length === 0) return null;
  return (
    <ul className="sheet-findings" aria-label={`Measured at ${sheet.name}`}>
      {told.map((finding) => (
        <Told key={finding.id} sheet={sheet} finding={finding} />
      ))}
    </ul>
  );
}

function Told({ sheet, finding }: { sheet: SpecSheet; finding: SheetFinding }) {
  const change = useChangeFinding();
  const note = useUndoNote();
  const { place, said, measured, measuredOn, state } = finding;
  const name = sheet.places.find(({ slug }) => slug === place)?.name ?? 'All of it';
  const field = fieldWords[finding.change.field];
  const set = (to: SheetFinding['state']) => change.mutate({ ...finding, state: to }, { onError: note.failed });
  const isOpen = state === 'open';
  const on = dayjs(measuredOn).format('D MMM YYYY');
  return (
    <li data-state={state}>
      <span>
        <strong>{name}</strong>, {field}: measured on {on}: {measured}.{' '}
        <span className="quiet">{isOpen ? `The sheet says ${said}.` : `The sheet said ${said}.`}</span>
      </span>
      <ForEditors>
        <span className="row">
          <Button
            size="small"
            type={isOpen ? 'default' : 'text'}
            loading={change.isPending}
            aria-disabled={change.isPending}
            onClick={() => set(isOpen ? 'taken over' : 'open')}
          >
            {isOpen ? `Take ${measured} over` : `Back to ${said}`}
          </Button>
          {isOpen && (
            <Button size="small" type="text" onClick={() => set('dismissed')}>
              Leave it
            </Button>
          )}
        </span>
      </ForEditors>
    </li>
  );
}
