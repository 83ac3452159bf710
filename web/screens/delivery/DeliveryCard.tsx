import { seamCautions } from '@inkwell/core/checking';
import {
  type Delivery,
  type DryRunSummary,
  formatLabel,
  formatLimit,
  formatWeight,
  type ManifestFile,
} from '@inkwell/core/model';
import { Button, Progress, Table } from 'antd';
import dayjs from 'dayjs';
import { type ReactNode, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { archiveUrl, useCancelDelivery } from '../../api/projects/deliveries.ts';
import { useNetworks, useStartDryRun } from '../../api/projects/dryRuns.ts';
import { counted } from '../../parts/counted.ts';
import { ForEditors } from '../../parts/ForEditors.tsx';
import { useUndoNote } from '../../parts/useUndoNote.tsx';
import { runWords } from '../dryRun/outcomeWords.ts';

const columns = [
  { title: 'File', dataIndex: 'file', sorter: (a: ManifestFile, b: ManifestFile) => a.file.localeCompare(b.file) },
  {
    title: 'Dimensions',
    key: 'dimensions',
    width: 112,
    render: (_: unknown, { width, height }: ManifestFile) => `${width} × ${height}`,
  },
  {
    title: 'Weight',
    key: 'bytes',
    width: 160,
    align: 'right' as const,
    sorter: (a: ManifestFile, b: ManifestFile) => a.bytes - b.bytes,
    render: (_: unknown, file: ManifestFile) =>
      `${formatWeight(file.bytes, file.limitUnit)} of ${formatLimit({ bytes: file.limitBytes, unit: file.limitUnit })}`,
  },
  {
    title: 'Format',
    key: 'format',
    width: 146,
    render: (_: unknown, { format, quality }: ManifestFile) =>
      `${formatLabel[format]}${quality === null ? '' : `, quality ${quality}`}`,
  },
];

/** As narrow as the table of files can be read, in CSS pixels: a narrower window scrolls it. */
const tableWidth = 640;

/** One delivery: how far it is, what came out, what was left out and why, and the archive. */
export function DeliveryCard(props: {
  delivery: Delivery;
  /** The dry runs of it, newest first. */
  runs: readonly DryRunSummary[];
  open: boolean;
  icon: ReactNode;
}) {
  const { delivery, runs, open, icon } = props;
  const [shown, setShown] = useState(open);
  const cancel = useCancelDelivery(delivery.projectId);
  const start = useStartDryRun(delivery.projectId);
  const { data: networks } = useNetworks();
  const isAlone = networks?.length === 0;
  const go = useNavigate();
  const note = useUndoNote();
  const { state, files, leftOut, frameCount, doneCount } = delivery;
  const when = dayjs(delivery.createdAt).format('D MMM YYYY, HH:mm');
  const working = state === 'waiting' || state === 'working';
  return (
    <article className="sheet delivery-card" aria-label={`Delivery of ${when}`} data-state={state}>
      <div className="row spread wrap">
        <div>
          <h3>{when}</h3>
          <span className="quiet small">
            {working
              ? `${doneCount} of ${counted(frameCount, 'frame')} done`
              : `${counted(files.length, 'file')}, ${formatWeight(delivery.bytes, 'MB')} in all`}
            {leftOut.length > 0 && `, ${leftOut.length} left out`}
          </span>
        </div>
        <div className="row wrap">
          {files.length > 0 && !working && (
            <Button type="text" aria-expanded={shown} onClick={() => setShown(!shown)}>
              {shown ? 'Hide files' : 'Show files'}
            </Button>
          )}
          {working && (
            <ForEditors>
              <Button loading={cancel.isPending} onClick={() => cancel.mutate(delivery.id, { onError: note.failed })}>
                Cancel
              </Button>
            </ForEditors>
          )}
          {state === 'done' && files.length > 0 && (
            <>
              <Link to={`/projects/${delivery.projectId}/deliver/${delivery.id}`}>Posting kit</Link>
              <ForEditors>
                <Button
                  loading={start.isPending}
                  disabled={isAlone}
                  title={
                    isAlone
                      ? 'No simulated network is running. ./inkwell demo and ./inkwell serve start them.'
                      : 'Upload it to the simulated networks, and see what they show'
                  }
                  onClick={() =>
                    start.mutate(
                      { deliveryId: delivery.id },
                      {
                        onError: note.failed,
                        onSuccess: ({ id }) => void go(`/projects/${delivery.projectId}/deliver/dry-runs/${id}`),
                      },
                    )
                  }
                >
                  Dry run
                </Button>
              </ForEditors>
            </>
          )}
          {state === 'done' && files.length > 0 && (
            <Button icon={icon} href={archiveUrl(delivery)} aria-label={`Download the archive of ${when}`}>
              Download
            </Button>
          )}
        </div>
      </div>
      {working && <Progress percent={Math.round((100 * doneCount) / Math.max(1, frameCount))} showInfo={false} />}
      {state === 'cancelled' && <p className="quiet small">Cancelled before all files were made.</p>}
      {state === 'failed' && (
        <p role="alert" className="delivery-problem">
          {delivery.failure}
        </p>
      )}
      {leftOut.map((one) => (
        <p key={one.file} role="alert" className="delivery-problem">
          <strong>{one.file}</strong> is not in the archive. {one.reasons.join(' ')}
        </p>
      ))}
      {seamCautions(files).map((text) => (
        <p key={text} className="delivery-caution">
          <strong>Caution</strong> {text}
        </p>
      ))}
      {runs.length > 0 && (
        <p className="small delivery-runs">
          Dry runs:{' '}
          {runs.map((run, at) => (
            <span key={run.id}>
              {at > 0 && ' · '}
              <Link to={`/projects/${delivery.projectId}/deliver/dry-runs/${run.id}`}>
                {dayjs(run.createdAt).format('D MMM, HH:mm')}
              </Link>{' '}
              <span className="quiet">{run.failure ?? runWords(run.state, run.counts)}</span>
            </span>
          ))}
        </p>
      )}
      {shown && state === 'done' && (
        <Table<ManifestFile>
          size="small"
          rowKey="file"
          columns={columns}
          dataSource={files}
          pagination={false}
          scroll={{ y: 420, x: tableWidth }}
        />
      )}
    </article>
  );
}
