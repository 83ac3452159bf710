import { RedoOutlined, UndoOutlined } from '@ant-design/icons';
import { Button } from 'antd';
import { useMay } from '../../api/access/workspaces.ts';
import { connectionOf } from './state/benchState.ts';
import { useBench, useBenchStore } from './state/useBench.ts';

const words = {
  fine: 'Saved',
  saving: 'Saving …',
  held: 'Not everything is saved',
  offline: 'Not connected: changes are kept here and sent later',
} as const;

/** How saving stands, undo and redo. @param isAway the program, or its database, does not answer */
export function SavingTools({ isAway }: { isAway: boolean }) {
  const store = useBenchStore();
  const saving = useBench(connectionOf);
  // Words that are being typed are saved when the hands rest, and can be taken back before.
  const isTyped = useBench(({ moving }) => moving?.kind === 'lettering');
  const connection = isAway ? 'offline' : isTyped && saving === 'fine' ? 'saving' : saving;
  const steps = useBench(({ history }) => history.past.length);
  const back = steps + (isTyped ? 1 : 0);
  const forward = useBench(({ history }) => history.future.length);
  const mayChange = useMay('editor');
  if (!mayChange) return null;
  return (
    <>
      <span
        role="status"
        className={`small ${connection === 'offline' || connection === 'held' ? 'bench-offline' : 'quiet'}`}
      >
        {words[connection]}
      </span>
      <Button
        size="small"
        type="text"
        icon={<UndoOutlined />}
        disabled={back === 0}
        aria-label="Undo"
        title="Undo (Ctrl Z)"
        onClick={() => store.undo()}
      />
      <Button
        size="small"
        type="text"
        icon={<RedoOutlined />}
        disabled={forward === 0}
        aria-label="Redo"
        title="Redo (Ctrl Shift Z)"
        onClick={() => store.redo()}
      />
    </>
  );
}
