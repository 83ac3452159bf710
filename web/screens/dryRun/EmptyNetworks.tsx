import { Button, Popconfirm } from 'antd';
import { useState } from 'react';
import { useEmptyNetworks } from '../../api/projects/dryRuns.ts';
import { useUndoNote } from '../../parts/useUndoNote.tsx';

/** Deletes what was posted to the simulated networks. What came back of it stays here. */
export function EmptyNetworks() {
  const empty = useEmptyNetworks();
  const note = useUndoNote();
  const [isDone, setDone] = useState(false);
  return (
    <Popconfirm
      title="Empty the simulated networks?"
      description="Everything that was posted there is deleted. Results of dry runs stay here."
      okText="Empty them"
      cancelText="Keep them"
      onConfirm={() => empty.mutate(undefined, { onError: note.failed, onSuccess: () => setDone(true) })}
    >
      <Button loading={empty.isPending}>{isDone ? 'The networks are empty' : 'Empty the networks …'}</Button>
    </Popconfirm>
  );
}
