import './compare.css';
import { Button } from 'antd';
import type { ReactNode } from 'react';

/** A frame's pictures to be compared, a panel beside them, and the way back to the wall. */
export function CompareView(props: { label: string; onBack: () => void; room: ReactNode; panel: ReactNode }) {
  const { label, onBack, room, panel } = props;
  return (
    <section className="compare-and-panel bench-view" aria-label={label}>
      <Button size="small" className="compare-back" title="Back to the wall (Esc)" onClick={onBack}>
        Back
      </Button>
      {room}
      {panel}
    </section>
  );
}
