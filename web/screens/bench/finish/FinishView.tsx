import './FinishView.css';
import type { Measured, Treatment } from '@inkwell/core/model';
import { useState } from 'react';
import { CompareView } from '../../../compare/CompareView.tsx';
import type { Surround } from '../../../theme/palette.ts';
import { type BenchFrame, useFrameState } from '../frames/benchFrame.ts';
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
    <CompareView
      label={`Finish of ${one.at.network.name} ${one.at.place.name}`}
      onBack={onBack}
      room={<ComparePane one={one} state={state} draft={draft} surround={surround} />}
      panel={<FinishPanel one={one} state={state} onDraft={setDraft} />}
    />
  );
}
