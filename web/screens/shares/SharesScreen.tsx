import './SharesScreen.css';
import { type AllShares, type ShareOf, shareKinds, shareWords } from '@inkwell/core/model';
import { Button } from 'antd';
import { useState } from 'react';
import { useAllShares, useOwnShares } from '../../api/access/shares.ts';
import { ListTable } from '../../parts/making/ListTable.tsx';
import { FailureLine, Skeleton } from '../../parts/States.tsx';
import { ChangeShare } from './ChangeShare.tsx';
import { ShareUse } from './ShareUse.tsx';

type Listed = AllShares['people'][number];

/** How much of the machine people and workspaces may use, and how much they do. */
export function SharesScreen() {
  const own = useOwnShares(true);
  const { query: all, change } = useAllShares();
  const [changed, setChanged] = useState<{ of: 'people' | 'workspaces'; one: Listed } | null>(null);
  const { data, error, refetch } = own;
  return (
    <div className="page">
      <h1>Shares</h1>
      <p className="quiet page-about">
        How much of the machine may be used here. People take turns at it in any case: one who brings in hundreds of
        pictures keeps nobody waiting. A share bounds what somebody can use at all.
      </p>
      {!data && (error ? <FailureLine error={error} again={() => void refetch()} /> : <Skeleton height={160} />)}
      {data && (
        <div className="shares-own">
          {data.person && <Standing title="You" of={data.person} />}
          <Standing title="This workspace" of={data.workspace} />
        </div>
      )}
      {all.data && all.data.people.length > 0 && (
        <Table title="Everybody here" all={all.data.people} onChange={(one) => setChanged({ of: 'people', one })} />
      )}
      {all.data && all.data.workspaces.length > 0 && (
        <Table title="Workspaces" all={all.data.workspaces} onChange={(one) => setChanged({ of: 'workspaces', one })} />
      )}
      {!all.data && all.isLoading && <Skeleton height={160} />}
      {!all.data && all.error && <FailureLine error={all.error} again={() => void all.refetch()} />}
      {changed && (
        <ChangeShare
          key={changed.one.of.id}
          name={changed.one.of.name}
          share={changed.one.share}
          onSave={(share) => change.mutateAsync({ of: changed.of, id: changed.one.of.id, share })}
          onClose={() => setChanged(null)}
        />
      )}
    </div>
  );
}

function Standing({ title, of }: { title: string; of: ShareOf }) {
  return (
    <section className="sheet page-part" aria-label={title}>
      <h2>{title}</h2>
      <dl className="share-lines">
        {shareKinds.map((kind) => (
          <div key={kind}>
            <dt>
              {shareWords[kind].name} <span className="quiet small">{shareWords[kind].about}</span>
            </dt>
            <dd>
              <ShareUse kind={kind} of={of} />
            </dd>
          </div>
        ))}
      </dl>
    </section>
  );
}

function Table(props: { title: string; all: readonly Listed[]; onChange: (one: Listed) => void }) {
  const { title, all, onChange } = props;
  return (
    <section className="sheet page-part" aria-label={title}>
      <h2>{title}</h2>
      <ListTable heads={['Name', ...shareKinds.map((kind) => shareWords[kind].name)]}>
        {all.map((one) => (
          <tr key={one.of.id}>
            <th scope="row">{one.of.name}</th>
            {shareKinds.map((kind) => (
              <td key={kind} data-label={shareWords[kind].name}>
                <ShareUse kind={kind} of={one} />
              </td>
            ))}
            <td>
              <Button size="small" aria-label={`Change the share of ${one.of.name}`} onClick={() => onChange(one)}>
                Change …
              </Button>
            </td>
          </tr>
        ))}
      </ListTable>
    </section>
  );
}
