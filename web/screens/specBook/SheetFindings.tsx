import type { SheetChange, SheetFinding, SpecSheet } from '@inkwell/core/model';
import { Button } from 'antd';
import dayjs from 'dayjs';
import { useChangeFinding } from '../../api/sheetFindings.ts';
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
  const on = dayjs(measuredOn).format('D MMM YYYY');
  return (
    <li data-state={state}>
      <span>
        <strong>{name}</strong>, {field}: measured on {on}: {measured}.{' '}
        <span className="quiet">{state === 'taken over' ? `The sheet said ${said}.` : `The sheet says ${said}.`}</span>
      </span>
      <span className="row">
        {state === 'open' ? (
          <>
            <Button size="small" loading={change.isPending} onClick={() => set('taken over')}>
              Take {measured} over
            </Button>
            <Button size="small" type="text" onClick={() => set('dismissed')}>
              Leave it
            </Button>
          </>
        ) : (
          <Button size="small" type="text" loading={change.isPending} onClick={() => set('open')}>
            Back to {said}
          </Button>
        )}
      </span>
    </li>
  );
}
