import './Series.css';
import { mostRows, type Series } from '@inkwell/core/model';
import {
  pictureFinder,
  placeFinder,
  readSeries,
  readTable,
  rowPictures,
  type Understood,
  understood,
} from '@inkwell/core/series';
import { Button, Checkbox, Input, Select } from 'antd';
import { useEffect, useMemo, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { useOriginals } from '../../api/library/originals.ts';
import { usePlaces } from '../../api/library/specBook.ts';
import { useRowFindings, useTakeSeries } from '../../api/projects/series.ts';
import { counted } from '../../parts/counted.ts';
import { FileButton } from '../../parts/FileButton.tsx';
import { FailureLine, Skeleton } from '../../parts/States.tsx';
import { useUndoNote } from '../../parts/useUndoNote.tsx';
import { useOpenProject } from '../ProjectLayout.tsx';
import { ReadRows } from './ReadRows.tsx';
import { useWordsItems } from './useWordsItems.ts';
import { usualPlacesOf } from './usualPlaces.ts';

const none: never[] = [];
/** A file of more bytes than this is no table of so many rows. */
const mostBytes = 5_000_000;

/** So long after the last letter words are laid out on the server. */
const restMs = 350;

/** A value once it has stayed for a while. */
function useRested<Value>(value: Value): Value {
  const [rested, setRested] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => setRested(value), restMs);
    return () => clearTimeout(timer);
  }, [value]);
  return rested;
}

/** Reads a series from a table: what its columns mean, and what would be wrong with its rows, is shown before anything is made. */
export function TableScreen() {
  const project = useOpenProject();
  const { originals } = project;
  const items = useWordsItems(project.lettering);
  const { data: library = none, error: libraryError, isPending } = useOriginals();
  const book = usePlaces(project);
  const [text, setText] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  // What a person has said of the table; until then it is understood by what stands in it.
  const [meant, setMeant] = useState<Understood | null>(null);
  const [placeIds, setPlaceIds] = useState(() => usualPlacesOf(project));
  const navigate = useNavigate();
  const note = useUndoNote();
  const { take, takeBack } = useTakeSeries(project);

  const finder = useMemo(() => pictureFinder(originals, library), [originals, library]);
  const table = useMemo(() => (text.trim() === '' ? null : readTable(text)), [text]);
  // Before all pictures and places are known no row is said to name none.
  const isKnown = !isPending && book.size > 0;
  const cells = isKnown && table && 'cells' in table ? table.cells : null;
  const { meanings, hasHeads } = useMemo(
    () => meant ?? understood(cells ?? [], items, finder),
    [meant, cells, items, finder],
  );
  const rows = useMemo(() => {
    const by = { items, pictures: originals, findPicture: finder, findPlace: placeFinder(book) };
    return cells ? readSeries(cells, { meanings, hasHeads }, by) : [];
  }, [cells, meanings, hasHeads, items, originals, finder, book]);
  const good = useMemo(() => rows.flatMap(({ row }) => row ?? []), [rows]);
  const copied = useMemo(() => {
    const taken = rows.flatMap(({ number, row }) => (row ? [{ number, ...row }] : []));
    const named = new Set(taken.map(({ originalId }) => originalId));
    const pictures = rowPictures(taken, [...originals, ...library.filter(({ id }) => named.has(id))]);
    return new Set(taken.flatMap(({ number }, at) => ('copyOf' in (pictures[at] ?? {}) ? [number] : [])));
  }, [rows, originals, library]);
  const series = useMemo(
    (): Series | null => (good.length > 0 && good.length <= mostRows ? { rows: good, placeIds } : null),
    [good, placeIds],
  );
  const asked = useRested(series);
  const { data: findings, error, isFetching } = useRowFindings(project, asked);
  const isLaying = isFetching || asked !== series;
  const read = async (file: File | undefined) => {
    if (!file) return;
    setMeant(null);
    setProblem(null);
    if (file.size > mostBytes) {
      setProblem(`${file.name} is too large: a table can have at most 5 MB. Leave out what is not needed.`);
      return;
    }
    try {
      setText(await file.text());
    } catch {
      setProblem(`${file.name} could not be read. Choose it again.`);
    }
  };
  const takeThem = async () => {
    if (!series) return;
    try {
      const after = await take.mutateAsync(series);
      note.done(
        `${counted(series.rows.length, 'row')} of the table ${series.rows.length === 1 ? 'was' : 'were'} taken.`,
        () => takeBack(after),
      );
      navigate(`/projects/${project.id}/series`);
    } catch (failure) {
      note.failed(failure);
    }
  };
  const tooMany =
    good.length > mostRows
      ? `A series can have at most ${mostRows} rows, and this has ${good.length}. Leave some out.`
      : null;
  const unreadable = table && 'unreadable' in table ? table.unreadable : tooMany;
  return (
    <div className="page series-read">
      <h2>A series from a table</h2>
      <p className="quiet">
        Each row is a picture with what is written on it, and becomes its set of frames. Paste rows of a spreadsheet, or
        choose a CSV file. Nothing is made before you have seen how it is understood.
      </p>
      <section
        className="series-paste"
        aria-label="The table"
        onDragOver={(event) => event.preventDefault()}
        onDrop={(event) => {
          event.preventDefault();
          void read(event.dataTransfer.files[0]);
        }}
      >
        <Input.TextArea
          aria-label="Rows of the table"
          autoSize={{ minRows: 3, maxRows: cells ? 5 : 10 }}
          placeholder={`picture, ${items.map(({ name }) => name.toLowerCase()).join(', ') || 'name'}\ndunes.jpg, …`}
          value={text}
          onChange={({ target }) => {
            setText(target.value);
            setMeant(null);
            setProblem(null);
          }}
        />
        <span className="row wrap">
          <FileButton
            accept=".csv,.tsv,.txt,text/csv,text/plain"
            name="File of a table"
            onFile={(file) => void read(file)}
          >
            Choose a CSV file …
          </FileButton>
          <span className="quiet">or drop it here</span>
          <Link to={`/projects/${project.id}/series`}>Back to the series</Link>
        </span>
      </section>
      {(problem ?? unreadable) && (
        <p role="alert" className="series-problem">
          {problem ?? unreadable}
        </p>
      )}
      {table && !isKnown && !libraryError && <Skeleton height={160} />}
      {libraryError && <FailureLine error={libraryError} />}
      {cells && (
        <>
          <div className="series-asked">
            <span className="series-usual">
              <span>Places for rows that name none</span>
              <Select<string[]>
                mode="multiple"
                aria-label="Places for rows that name none"
                placeholder="Those that each picture has"
                optionFilterProp="label"
                maxTagCount={3}
                value={placeIds}
                options={[...book.values()].map(({ id, network, place }) => ({
                  value: id,
                  label: `${network.name} ${place.name}`,
                }))}
                onChange={setPlaceIds}
              />
            </span>
            <span className="row wrap">
              <span className="quiet" role="status">
                {isLaying ? 'Laying the words out …' : `${good.length} of ${counted(rows.length, 'row')} to take`}
              </span>
              <Button type="primary" disabled={!series || isLaying} loading={take.isPending} onClick={takeThem}>
                Take {counted(good.length, 'row')}
              </Button>
            </span>
          </div>
          <Checkbox checked={hasHeads} onChange={({ target }) => setMeant({ meanings, hasHeads: target.checked })}>
            The first row says what the columns are
          </Checkbox>
          {error && <FailureLine error={error} />}
          <ReadRows
            cells={cells}
            meant={{ meanings, hasHeads }}
            rows={rows}
            findings={isLaying ? none : (findings ?? none)}
            items={items}
            copied={copied}
            onMean={(next) => setMeant({ meanings: next, hasHeads })}
          />
        </>
      )}
    </div>
  );
}
