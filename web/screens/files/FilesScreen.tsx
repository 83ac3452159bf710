import './FilesScreen.css';
import { formatWeight } from '@inkwell/core/model';
import { Table, type TableColumnsType } from 'antd';
import { memo, useMemo, useRef } from 'react';
import { Link } from 'react-router';
import { counted } from '../../parts/counted.ts';
import { Empty, FailureLine, Skeleton } from '../../parts/States.tsx';
import { useRoom } from '../../stage/useRoom.ts';
import { useFinger } from '../../theme/useMedia.ts';
import { useOpenProject } from '../ProjectLayout.tsx';
import { useProjectFrames } from '../projectFrames.ts';
import { fileColumns } from './fileColumns.tsx';
import { type FileRow, type FileState, rowsOf } from './fileRows.ts';

const kB = (bytes: number) => formatWeight(bytes, 'MB');

/** All files of a project: what they weigh, what is left of the pictures, and which are held back. */
export function FilesScreen() {
  const project = useOpenProject();
  const { frames, isDone, error, again } = useProjectFrames(project);
  const filterHelp = useFinger() ? wideFilter : 0;
  const rows = useMemo(() => frames.flatMap(rowsOf), [frames]);
  const columns = useMemo(() => fileColumns(project.id, rows, filterHelp), [project.id, rows, filterHelp]);
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

/** The table, as high as there is room for. It stays as it is while nothing that it tells has changed. */
const FileTable = memo(function FileTable(props: {
  columns: TableColumnsType<FileRow>;
  rows: FileRow[];
  filterHelp: number;
}) {
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
});

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
