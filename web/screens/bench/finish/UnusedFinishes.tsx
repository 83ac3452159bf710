import type { Finish } from '@inkwell/core/model';
import { Button } from 'antd';
import { useFinishActions } from '../../../api/library/finishes.ts';
import { useUndoNote } from '../../../parts/useUndoNote.tsx';

/** Unused finishes, each to be removed. */
export function UnusedFinishes({ finishes }: { finishes: readonly Finish[] }) {
  const { remove, restore } = useFinishActions();
  const note = useUndoNote();
  if (finishes.length === 0) return null;
  return (
    <section className="finish-own" aria-label="Unused finishes">
      <h3>Not used by any frame</h3>
      {finishes.map(({ id, name }) => (
        <div key={id} className="row spread small">
          {name}
          <Button
            size="small"
            aria-label={`Remove ${name}`}
            onClick={() => note.after(remove.mutateAsync(id), `${name} was removed.`, () => restore.mutateAsync(id))}
          >
            Remove
          </Button>
        </div>
      ))}
    </section>
  );
}
