import './FinishView.css';
import type { Treatment } from '@inkwell/core/model';
import { Button } from 'antd';
import { useState } from 'react';
import type { Measured } from '../../../api/projects.ts';
import type { Surround } from '../../../theme/palette.ts';
import { type BenchFrame, useFrameState } from '../benchFrame.ts';
import { ComparePane } from './ComparePane.tsx';
import { FinishPanel } from './FinishPanel.tsx';

/** One frame plain and finished, and the finish beside it. */
export function FinishView(props: {
  one: BenchFrame;
  measured: readonly Measured[] | undefined;
  surround: Surround;
  onBack: () => void;
}) {
  const { one, measured, surround, onBack } = props;
  const state = useFrameState(one, measured);
  const [draft, setDraft] = useState<Treatment | null>(null);
  if (!state) return null;
  return (
    <section className="finish-view" aria-label={`Finish of ${one.at.network.name} ${one.at.place.name}`}>
      <Button size="small" className="compare-back" title="Back to the wall (Esc)" onClick={onBack}>
        Back
      </Button>
      <ComparePane one={one} state={state} draft={draft} surround={surround} />
      <FinishPanel one={one} state={state} onDraft={setDraft} />
    </section>
  );
}
