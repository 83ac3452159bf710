import { formatLabel, formatLimit, formatWeight, limitFor } from '@inkwell/core/model';
import type { TableColumnsType } from 'antd';
import { Link } from 'react-router';
import { proofUrl } from '../../api/projects/frames.ts';
import { ArrivingPicture } from '../../parts/pictures/ArrivingPicture.tsx';
import { WeightGauge } from '../../parts/WeightGauge.tsx';
import { type FileRow, type FileState, fileStates } from './fileRows.ts';
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

/** The columns of the table of files. @param filterHelp what a filter in the head takes more, in CSS pixels */
export function fileColumns(
  projectId: string,
  rows: readonly FileRow[],
  filterHelp: number,
): TableColumnsType<FileRow> {
  return [
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
        <Link to={`/projects/${projectId}?view=weight&original=${one.original.id}&frame=${one.frame.id}`}>
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
}
