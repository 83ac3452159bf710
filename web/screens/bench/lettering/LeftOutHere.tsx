import { withHand } from '@inkwell/core/model';
import { Button } from 'antd';
import type { BenchFrame, FrameState } from '../frames/benchFrame.ts';
import { useBenchStore } from '../state/useBench.ts';

/** The items that a hand has left out of a frame, each with the way back. */
export function LeftOutHere({ one, state }: { one: BenchFrame; state: FrameState }) {
  const store = useBenchStore();
  const { hands } = state.settings;
  const out = one.finishing.project.lettering.filter(({ id }) => hands[id]?.isOff);
  if (out.length === 0) return null;
  return (
    <div className="left-out">
      {out.map(({ id, name }) => (
        <Button
          key={id}
          size="small"
          onClick={() => store.set('frames', one.frame.id, { hands: withHand(hands, id, { isOff: false }) })}
        >
          Show {name} here again
        </Button>
      ))}
    </div>
  );
}
