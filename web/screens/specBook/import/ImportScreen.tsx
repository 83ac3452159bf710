import type { BookImport, ImportedLine } from '@inkwell/core/model';
import './ImportScreen.css';
import { Button, Checkbox } from 'antd';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { sentenceOf } from '../../../api/client.ts';
import { useImport } from '../../../api/library/bookFiles.ts';
import { counted } from '../../../parts/counted.ts';
import { FileButton } from '../../../parts/FileButton.tsx';
import { useUndoNote } from '../../../parts/useUndoNote.tsx';
import { savedByName } from '../savedBy.ts';

const kindWords: Record<ImportedLine['kind'], string> = {
  new: 'new',
  changed: 'changed',
  gone: 'gone',
  'not understood': 'not understood',
  same: 'the same',
};
const kinds = Object.keys(kindWords) as ImportedLine['kind'][];

/** A file that was chosen, with what it would do. */
interface Chosen {
  name: string;
  text: string;
  plan: BookImport;
}

const countsOf = (lines: readonly ImportedLine[]): string =>
  kinds
    .map((kind) => [lines.filter((line) => line.kind === kind).length, kindWords[kind]] as const)
    .filter(([count]) => count > 0)
    .map(([count, words]) => `${count} ${words}`)
    .join(', ');

/** Takes sheets in from a file: what is new, changed, gone and not understood is shown before anything is taken. */
export function ImportScreen() {
  const { look, take } = useImport();
  const [chosen, setChosen] = useState<Chosen | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const note = useUndoNote();
  const navigate = useNavigate();
  const open = async (file: File | undefined) => {
    if (!file) return;
    setProblem(null);
    setChosen(null);
    setLeft(new Set());
    try {
      const text = await file.text();
      setChosen({ name: file.name, text, plan: await look.mutateAsync(text) });
    } catch (error) {
      setProblem(`${file.name}: ${sentenceOf(error)}`);
    }
  };
  const offered = chosen?.plan.sheets.filter(({ kind }) => kind !== 'same') ?? [];
  const wanted = offered.filter(({ slug }) => !left.has(slug));
  const takeThem = async () => {
    if (!chosen) return;
    try {
      await take.mutateAsync({
        text: chosen.text,
        take: wanted.map(({ slug, version }) => ({ slug, version })),
        savedBy: savedByName(),
      });
      navigate(`/spec-book/${wanted[0]?.slug ?? ''}`);
    } catch (error) {
      note.failed(error);
    }
  };
  return (
    <div className="page import">
      <h1>Import sheets</h1>
      <p className="quiet">
        A sheet or a whole spec book, as JSON or as a table (CSV) with one place in each row. Nothing is taken before
        you have seen what it does.
      </p>
      <section
        className="import-drop"
        aria-label="Choose a file"
        onDragOver={(event) => event.preventDefault()}
        onDrop={(event) => {
          event.preventDefault();
          void open(event.dataTransfer.files[0]);
        }}
      >
        <FileButton
          loading={look.isPending}
          accept=".json,.csv,text/csv,application/json"
          name="File of sheets"
          onFile={(file) => void open(file)}
        >
          Choose a file …
        </FileButton>
        <span className="quiet">or drop it here</span>
        <Link to="/spec-book">Back to the spec book</Link>
      </section>
      {problem && (
        <p role="alert" className="import-problem">
          {problem}
        </p>
      )}
      {chosen && (
        <>
          <div className="row spread wrap">
            <h2>{chosen.name}</h2>
            <span className="row">
              <span className="quiet" role="status">
                {offered.length > 0
                  ? `${counted(wanted.length, 'sheet')} of ${chosen.plan.sheets.length} to take`
                  : hasUnread(chosen.plan)
                    ? 'There is nothing to take: what is new could not be understood.'
                    : 'The book says all of this already.'}
              </span>
              <Button type="primary" disabled={wanted.length === 0} loading={take.isPending} onClick={takeThem}>
                Take {counted(wanted.length, 'sheet')}
              </Button>
            </span>
          </div>
          {chosen.plan.notUnderstood.length > 0 && <Lines title="Not understood" lines={chosen.plan.notUnderstood} />}
          {chosen.plan.sheets.map((sheet) => (
            <section key={sheet.slug} className="sheet import-sheet" aria-label={sheet.name}>
              <div className="row spread wrap">
                <Checkbox
                  disabled={sheet.kind === 'same'}
                  checked={sheet.kind !== 'same' && !left.has(sheet.slug)}
                  onChange={({ target }) => {
                    const next = new Set(left);
                    if (target.checked) next.delete(sheet.slug);
                    else next.add(sheet.slug);
                    setLeft(next);
                  }}
                >
                  <strong>{sheet.name}</strong> <span className="quiet">{sheet.slug}</span>
                </Checkbox>
                <span className="quiet small">{countsOf(sheet.lines) || kindWords[sheet.kind]}</span>
              </div>
              {sheet.note && <p className="small import-note">{sheet.note}</p>}
              <Lines lines={sheet.lines.filter(({ kind }) => kind !== 'same')} />
            </section>
          ))}
        </>
      )}
    </div>
  );
}

const hasUnread = ({ sheets, notUnderstood }: BookImport): boolean =>
  notUnderstood.length > 0 || sheets.some(({ lines }) => lines.some(({ kind }) => kind === 'not understood'));

/** So many lines of one sheet are shown at once. */
const mostLines = 60;

function Lines({ title, lines }: { title?: string; lines: readonly ImportedLine[] }) {
  const [all, setAll] = useState(false);
  if (lines.length === 0) return null;
  const shown = all ? lines : lines.slice(0, mostLines);
  return (
    <>
      {title && <h3>{title}</h3>}
      <table className="import-lines">
        <tbody>
          {shown.map((line, index) => (
            <tr key={index} data-kind={line.kind}>
              <td className="quiet small">{line.at}</td>
              <th scope="row">{line.place || 'The sheet itself'}</th>
              <td className="import-kind">{kindWords[line.kind]}</td>
              <td>{line.words.join('; ')}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {!all && lines.length > mostLines && (
        <Button size="small" onClick={() => setAll(true)}>
          Show all {lines.length} lines
        </Button>
      )}
    </>
  );
}
