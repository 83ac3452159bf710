import './WeightView.css';
import type { Point } from '@inkwell/core/geometry';
import { Button } from 'antd';
import { useEffect, useMemo, useState } from 'react';
import { type Encoding, useTrial } from '../../../api/encodings.ts';
import type { Measured } from '../../../api/projects.ts';
import type { Surround } from '../../../theme/palette.ts';
import { type BenchFrame, useFrameState } from '../benchFrame.ts';
import { EncodingCompare } from './EncodingCompare.tsx';
import { seriesOf } from './series.ts';
import { WeightPanel } from './WeightPanel.tsx';

/** One frame's file: the picture and what encoding has made of it, and beside it what it weighs and could weigh. */
export function WeightView(props: {
  one: BenchFrame;
  measured: readonly Measured[] | undefined;
  surround: Surround;
  onBack: () => void;
}) {
  const { one, measured, surround, onBack } = props;
  const state = useFrameState(one, measured);
  const [tried, setTried] = useState<Encoding | null>(null);
  const [piece, setPiece] = useState(0);
  const [goTo, setGoTo] = useState<Point | null>(null);
  const saved = state?.savedHash ?? null;
  const subject = useMemo(
    () => (saved === null ? null : { frameId: one.frame.id, planHash: saved, piece }),
    [one.frame.id, saved, piece],
  );
  const own = state && ownEncoding(state, piece);
  const wished = tried ?? own;
  const trial = useTrial(subject, wished ?? { format: 'jpeg', colours: 'full', chroma: 'measured', quality: 90 });
  const series = useMemo(
    () => (state ? seriesOf(one.at.place, state.settings.format, state.settings.weighing) : []),
    [one.at.place, state],
  );
  // What was tried for another format stands beside this file until something else is tried.
  const format = state?.settings.format;
  useEffect(() => {
    if (format) setTried(null);
  }, [format]);
  if (!state || !own || !wished) return null;
  return (
    <section className="weight-view" aria-label={`Weight of ${one.at.network.name} ${one.at.place.name}`}>
      <Button size="small" className="compare-back" title="Back to the wall (Esc)" onClick={onBack}>
        Back
      </Button>
      <EncodingCompare
        one={one}
        state={state}
        subject={subject}
        own={own}
        tried={wished}
        trial={trial}
        surround={surround}
        goTo={goTo}
        onGoTo={setGoTo}
      />
      <WeightPanel
        one={one}
        state={state}
        subject={subject}
        series={series}
        tried={wished}
        trial={trial}
        piece={piece}
        onPiece={setPiece}
        onTry={setTried}
        onGoTo={setGoTo}
      />
    </section>
  );
}

/** How a frame's own file is encoded, once that is known. */
function ownEncoding({ settings, weight }: { settings: BenchSettings; weight: BenchWeight }, piece: number): Encoding {
  const file = weight?.files[piece] ?? weight?.files[0];
  const { format, weighing } = settings;
  return { format, colours: weighing.colours, chroma: weighing.chroma, quality: file?.quality ?? 90 };
}
type BenchSettings = NonNullable<ReturnType<typeof useFrameState>>['settings'];
type BenchWeight = NonNullable<ReturnType<typeof useFrameState>>['weight'];
