import './KitScreen.css';
import { DownloadOutlined } from '@ant-design/icons';
import type { Delivery } from '@inkwell/core/model';
import { alternativeText, type KitNetwork, kitFiles, postingKit } from '@inkwell/core/posting';
import { Button } from 'antd';
import dayjs from 'dayjs';
import { Link, useParams } from 'react-router';
import { archiveUrl, useDelivery, usePosted } from '../../api/projects/deliveries.ts';
import { counted } from '../../parts/counted.ts';
import { Failure, FailureLine, Skeleton } from '../../parts/States.tsx';
import { useUndoNote } from '../../parts/useUndoNote.tsx';
import { useOpenProject } from '../ProjectLayout.tsx';
import { KitEntryRow } from './KitEntryRow.tsx';
import { NoLongerFits } from './NoLongerFits.tsx';

/** The posting kit of a delivery: what is posted where, in which order and with which words, and what is posted already. */
export function KitScreen() {
  const project = useOpenProject();
  const { deliveryId = '' } = useParams();
  const { data: delivery, error, refetch } = useDelivery(deliveryId);
  if (error && !delivery) {
    return (
      <div className="page">
        <Failure error={error} again={() => void refetch()} />
      </div>
    );
  }
  if (!delivery) {
    return (
      <div className="page">
        <Skeleton height={420} />
      </div>
    );
  }
  return <Kit delivery={delivery} back={`/projects/${project.id}/deliver`} />;
}

function Kit({ delivery, back }: { delivery: Delivery; back: string }) {
  const { query, tick } = usePosted(delivery.id);
  const note = useUndoNote();
  const kit = postingKit(delivery.files);
  const posted = new Set(query.data ?? []);
  const posts = kit.flatMap(postsOf);
  const without = kitFiles(kit).filter(({ line }) => alternativeText(line) === '').length;
  return (
    <div className="page kit">
      <div className="row spread wrap">
        <div>
          <h2>Posting kit of {dayjs(delivery.createdAt).format('D MMM YYYY, HH:mm')}</h2>
          <p className="quiet small" style={{ margin: '3px 0 0' }} role="status">
            {posts.filter((key) => posted.has(key)).length} of {counted(posts.length, 'post')} posted. Ticks are seen by
            everybody who opens this kit.
          </p>
        </div>
        <div className="row">
          <Link to={back}>All deliveries</Link>
          <Button icon={<DownloadOutlined />} href={archiveUrl(delivery)}>
            Download all
          </Button>
        </div>
      </div>
      <NoLongerFits delivery={delivery} />
      {delivery.state !== 'done' && (
        <p className="kit-remark">This delivery is not finished: files are missing here.</p>
      )}
      {query.error && <FailureLine error={query.error} again={() => void query.refetch()} />}
      {without > 0 && (
        <p className="kit-remark small">
          {counted(without, 'file')} {without === 1 ? 'has' : 'have'} no alternative text. It is written in the weight
          view of the bench, under “To paste where it is posted”.
        </p>
      )}
      {kit.map((network) => (
        <section key={network.network} className="kit-network" aria-label={network.network}>
          <header className="row spread wrap">
            <h2>{network.network}</h2>
            <div className="row">
              <span className="quiet small">
                {postsOf(network).filter((key) => posted.has(key)).length} of {counted(postsOf(network).length, 'post')}{' '}
                posted
              </span>
              <Button size="small" icon={<DownloadOutlined />} href={archiveUrl(delivery, network.network)}>
                Download {network.network}
              </Button>
            </div>
          </header>
          {network.entries.map((entry) => (
            <KitEntryRow
              key={entry.number}
              delivery={delivery}
              entry={entry}
              posted={posted}
              onTick={(post, isPosted) => tick.mutate({ post, posted: isPosted }, { onError: note.failed })}
            />
          ))}
        </section>
      ))}
    </div>
  );
}

const postsOf = ({ entries }: KitNetwork): string[] => entries.flatMap(({ posts }) => posts.map(({ key }) => key));
