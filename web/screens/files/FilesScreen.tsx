import './FilesScreen.css';
import { formatLabel, formatLimit, formatWeight, limitFor } from '@inkwell/core/model';
import { Table, type TableColumnsType } from 'antd';
import { useRef } from 'react';
import { Link } from 'react-router';
import { proofUrl } from '../../api/projects/frames.ts';
import { counted } from '../../parts/counted.ts';
import { ArrivingPicture } from '../../parts/pictures/ArrivingPicture.tsx';
import { Empty, FailureLine, Skeleton } from '../../parts/States.tsx';
import { WeightGauge } from '../../parts/WeightGauge.tsx';
import { useRoom } from '../../stage/useRoom.ts';
import { useFinger } from '../../theme/useMedia.ts';
import { useOpenProject } from '../ProjectLayout.tsx';
import { useProjectFrames } from '../projectFrames.ts';
import { type FileRow, type FileState, fileStates, rowsOf } from './fileRows.ts';
import { missingLast } from './missingLast.ts';

const stateWords: Record<FileState, string> = {
  'held back': 'Held back',
  'not measured': 'Not measured',
  doubtful: 'With cautions',
  measuring: 'Measuring',
  good: 'Fine',
  'left out': 'Left out',
};
const kB = (bytes: number) => formatWeight(bytes, 'MB');
const filters = (names: string[]) => [...new Set(names)].sort().map((name) => ({ text: name, value: name }));

/** All files of a project: what they weigh, what is left of the pictures, and which are held back. */
export function FilesScreen() {
  const project = useOpenProject();
  const { frames, isDone, error, again } = useProjectFrames(project);
  const filterHelp = useFinger() ? wideFilter : 0;
  const rows = frames.flatMap(rowsOf);
  const weighed = rows.filter(({ bytes }) => bytes !== null);
  const total = weighed.reduce((sum, { bytes }) => sum + (bytes ?? 0), 0);
  const measuring = rows.filter(({ state, bytes }) => bytes === null && state !== 'not measured').length;
  const countOf = (wanted: FileState) => rows.filter(({ state }) => state === wanted).length;
  const [held, leftOut] = [countOf('held back'), countOf('left out')];
  if (rows.length === 0 && !isDone) return <Skeleton height={420} />;
  if (rows.length === 0) {
    return (
      <div className="page">
        <Empty title="No files yet">
          Choose <Link to={`/projects/${project.id}/choose`}>pictures and places</Link>, and every file is listed here
          with what it weighs.
        </Empty>
      </div>
    );
  }
  const columns: TableColumnsType<FileRow> = [
    {
      title: <span className="visually-hidden">Picture</span>,
      width: 62,
      render: (_, { one: { frame, planHash } }) =>
        planHash && (
          <ArrivingPicture alt="" className="files-thumb" loading="lazy" src={proofUrl(frame.id, planHash, 128)} />
        ),
    },
    {
      title: 'File',
      sorter: (a, b) => a.one.original.name.localeCompare(b.one.original.name) || a.place.localeCompare(b.place),
      filters: filters(rows.map(({ one }) => one.at.network.name)),
      onFilter: (name, { one }) => one.at.network.name === name,
      render: (_, { one, place, number }) => (
        <Link to={`/projects/${project.id}?view=weight&original=${one.original.id}&frame=${one.frame.id}`}>
          {one.original.name}, {place}
          {number && `, ${number}`}
        </Link>
      ),
    },
    {
      title: 'Dimensions',
      width: 118,
      align: 'right',
      sorter: (a, b) => a.width * a.height - b.width * b.height,
      render: (_, { width, height }) => `${width} × ${height}`,
    },
    {
      title: 'Format',
      width: 100 + filterHelp,
      filters: filters(rows.map(({ one }) => formatLabel[one.frame.format])),
      onFilter: (name, { one }) => formatLabel[one.frame.format] === name,
      sorter: (a, b) => a.one.frame.format.localeCompare(b.one.frame.format) || (a.quality ?? 0) - (b.quality ?? 0),
      render: (_, { one, quality }) => `${formatLabel[one.frame.format]}${quality === null ? '' : ` ${quality}`}`,
    },
    {
      title: 'Weight',
      width: 96,
      align: 'right',
      sorter: missingLast(({ bytes }) => bytes),
      render: (_, { bytes }) =>
        bytes === null ? (
          <span className="quiet">…</span>
        ) : (
          <span title={`${bytes.toLocaleString('en')} bytes`}>{kB(bytes)}</span>
        ),
    },
    {
      title: 'Of the limit',
      width: 150,
      sorter: missingLast(({ share }) => share),
      render: (_, { one, share }) => (
        <>
          <span className="row spread small">
            <span>{share === null ? '' : `${Math.max(1, Math.round(share * 100))} %`}</span>
            <span className="quiet">{formatLimit(limitFor(one.at.place, one.frame.format))}</span>
          </span>
          <WeightGauge weight={one.weight} limit={limitFor(one.at.place, one.frame.format)} />
        </>
      ),
    },
    {
      title: (
        <span title="To the uncompressed picture, or to the keep mark that came out worst; 0 to 100">Similarity</span>
      ),
      width: 108,
      align: 'right',
      sorter: missingLast(({ similarity }) => similarity),
      render: (_, { similarity }) => similarity?.toFixed(1) ?? '',
    },
    {
      title: 'Worst spot',
      width: 108,
      align: 'right',
      sorter: missingLast(({ worst }) => worst),
      render: (_, { worst }) => worst?.toFixed(1) ?? '',
    },
    {
      title: 'State',
      width: 126 + filterHelp,
      filters: filters(rows.map(({ state }) => stateWords[state])),
      onFilter: (name, { state }) => stateWords[state] === name,
      sorter: (a, b) => fileStates.indexOf(a.state) - fileStates.indexOf(b.state),
      render: (_, { state, one }) => (
        <span
          className="files-state"
          data-state={state}
          title={[one.failure ?? '', ...one.findings.map(({ text }) => text)].join('\n').trim()}
        >
          {stateWords[state]}
        </span>
      ),
    },
  ];
  return (
    <div className="files-screen">
      <p className="files-totals" style={{ margin: 0 }}>
        <strong>{counted(rows.length, 'file')}</strong>
        {weighed.length > 0 && (
          <>
            , together <strong>{kB(total)}</strong>
          </>
        )}
        {measuring > 0 && `; ${measuring} still being measured`}
        {held > 0 && `; ${held} held back`}
        {leftOut > 0 && `; ${leftOut} left out of deliveries`}.
      </p>
      {error !== null && <FailureLine error={error} again={again} />}
      <FileTable columns={columns} rows={rows} filterHelp={filterHelp} />
    </div>
  );
}

/** The table, as high as there is room for. */
function FileTable(props: { columns: TableColumnsType<FileRow>; rows: FileRow[]; filterHelp: number }) {
  const { columns, rows, filterHelp } = props;
  const holder = useRef<HTMLDivElement>(null);
  const room = useRoom(holder);
  return (
    <div ref={holder} className="files-table">
      <Table<FileRow>
        size="small"
        columns={columns}
        dataSource={rows}
        pagination={{ pageSize: filesShown, hideOnSinglePage: true, showSizeChanger: false, size: 'small' }}
        scroll={{
          y: Math.max(120, room.height - headHeight - (rows.length > filesShown ? footHeight : 0)),
          x: tableWidth + 3 * filterHelp,
        }}
        aria-label="Files"
      />
    </div>
  );
}

/** So many files are drawn at once. */
const filesShown = 150;
/** Of the table's head, in CSS pixels. */
const headHeight = 40;
/** Of the line in which another page is chosen, the same. */
const footHeight = 56;
/** As narrow as the table can be read: a narrower window scrolls it. */
const tableWidth = 960;
/** What a filter in the head takes more where it is made for a finger, in CSS pixels. */
const wideFilter = 36;
