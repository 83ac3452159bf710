import './WeightView.css';
import type { Point } from '@inkwell/core/geometry';
import type { EncodedFile, FrameSettings, Measured } from '@inkwell/core/model';
import { useEffect, useMemo, useState } from 'react';
import { type Encoding, useTrial } from '../../../api/files/encodings.ts';
import { CompareView } from '../../../compare/CompareView.tsx';
import type { Surround } from '../../../theme/palette.ts';
import { type BenchFrame, useFrameState } from '../frames/benchFrame.ts';
import { seriesOf } from './curve/series.ts';
import { EncodingCompare, type MadeFile } from './EncodingCompare.tsx';
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
  const [chosen, setPiece] = useState(0);
  const [goTo, setGoTo] = useState<Point | null>(null);
  const { settings, weight = null, savedHash = null } = state ?? {};
  const piece = Math.min(chosen, (weight?.files.length ?? 1) - 1);
  const file = weight?.files[piece] ?? null;
  const subject = useMemo(
    () => (savedHash === null ? null : { frameId: one.frame.id, planHash: savedHash, piece }),
    [one.frame.id, savedHash, piece],
  );
  const own = useMemo(() => (settings && file ? ownEncoding(settings, file) : null), [settings, file]);
  // What was tried stands beside this file until the file is to be made otherwise.
  const { format, weighing } = settings ?? {};
  const wished = JSON.stringify([format, weighing]);
  useEffect(() => {
    if (wished) setTried(null);
  }, [wished]);
  // The last file stays until the next is measured, and nothing flickers; before the first there is only the picture.
  const [made, setMade] = useState<MadeFile | null>(null);
  const { width = 1, height = 1 } = state?.file ?? {};
  useEffect(() => {
    const next = subject && { subject, own, dimensions: { width, height } };
    if (next) setMade((last) => (own || !last?.own ? next : last));
  }, [subject, own, width, height]);
  const trial = useTrial(made?.subject ?? null, tried ?? made?.own ?? null);
  const series = useMemo(
    () => (format && weighing ? seriesOf(one.at.place, format, weighing) : []),
    [one.at.place, format, weighing],
  );
  if (!state) return null;
  return (
    <CompareView
      label={`Weight of ${one.at.network.name} ${one.at.place.name}`}
      onBack={onBack}
      room={
        <EncodingCompare
          one={one}
          state={state}
          made={made}
          tried={tried}
          trial={trial.data}
          surround={surround}
          goTo={goTo}
          onGoTo={setGoTo}
        />
      }
      panel={
        <WeightPanel
          one={one}
          state={state}
          subject={subject}
          series={series}
          tried={tried ?? own}
          trial={trial}
          piece={piece}
          onPiece={setPiece}
          onTry={setTried}
          onGoTo={setGoTo}
        />
      }
    />
  );
}

/** How a frame's own file is encoded. */
const ownEncoding = ({ format, weighing }: FrameSettings, { quality }: EncodedFile): Encoding => ({
  format,
  colours: weighing.colours,
  chroma: weighing.chroma,
  // A format without qualities leaves it aside.
  quality: quality ?? 100,
});
