import './DeliveryScreen.css';
import { DownloadOutlined } from '@ant-design/icons';
import { useDeliveries } from '../../api/projects/deliveries.ts';
import { useDryRuns } from '../../api/projects/dryRuns.ts';
import { ForEditors } from '../../parts/ForEditors.tsx';
import { Empty, Failure, Skeleton } from '../../parts/States.tsx';
import { useOpenProject } from '../ProjectLayout.tsx';
import { ShareNotice } from '../shares/ShareNotice.tsx';
import { DeliveryCard } from './DeliveryCard.tsx';
import { NewDelivery } from './NewDelivery.tsx';

/** Makes the files of a project, and lists what was made before. */
export function DeliveryScreen() {
  const project = useOpenProject();
  const { data: deliveries, error, refetch } = useDeliveries(project.id);
  const { data: runs = [] } = useDryRuns(project.id);
  return (
    <div className="page delivery">
      <ShareNotice />
      <ForEditors>
        <NewDelivery project={project} />
      </ForEditors>
      <section aria-label="Deliveries">
        <h2>Deliveries</h2>
        {error && !deliveries && <Failure error={error} again={() => void refetch()} />}
        {!deliveries && !error && <Skeleton height={160} />}
        {deliveries?.length === 0 && (
          <Empty title="Nothing delivered yet">
            Each delivery is kept unchanged and can be downloaded again at any time.
          </Empty>
        )}
        {deliveries?.map((delivery, index) => (
          <DeliveryCard
            key={delivery.id}
            delivery={delivery}
            runs={runs.filter(({ deliveryId }) => deliveryId === delivery.id)}
            open={index === 0}
            icon={<DownloadOutlined />}
          />
        ))}
      </section>
    </div>
  );
}
