import type { DryRun, DryRunFile, ShownAt } from '@inkwell/core/model';
import { Button, Segmented } from 'antd';
import { useEffect, useState } from 'react';
import { runPictureUrl } from '../../api/projects/dryRuns.ts';
import { CompareRoom, type View } from '../../compare/CompareRoom.tsx';
import { isTyping } from '../../parts/isTyping.ts';
import type { Surround } from '../../theme/palette.ts';
import { NeutralPage } from './NeutralPage.tsx';
import { ShownFigures } from './ShownFigures.tsx';

type Mode = 'compare' | 'page';

/** One file of a run: delivered and as shown, at the same spot and scale or on a page, with what was measured. */
export function ShownView(props: {
  run: DryRun;
  /** Those that one goes through. */
  files: readonly DryRunFile[];
  file: DryRunFile;
  onBack: () => void;
  onOpen: (position: number) => void;
}) {
  const { run, files, file, onBack, onOpen } = props;
  const { line, outcome } = file;
  const back = outcome?.state === 'shown' ? outcome.back : null;
  const [width, setWidth] = useState<number | null>(null);
  const [mode, setMode] = useState<Mode>('compare');
  const [goTo, setGoTo] = useState<{ x: number; y: number } | null>(null);
  const at = back?.shown.find(({ shownWidth }) => shownWidth === width) ?? back?.shown[0] ?? null;
  const index = files.findIndex(({ position }) => position === file.position);
  useKeys(onBack, (by) => {
    const next = files[index + by];
    if (next) onOpen(next.position);
  });
  return (
    <section className="compare-and-panel dry-run-close" aria-label={`${line.network} ${line.place}`}>
      <Button size="small" className="compare-back" title="Back to the wall (Esc)" onClick={onBack}>
        Back
      </Button>
      <div className="shown-side">
        <div className="shown-tools">
          <Segmented<Mode>
            size="small"
            aria-label="How it is looked at"
            value={mode}
            onChange={setMode}
            options={[
              { value: 'compare', label: 'Compare' },
              { value: 'page', label: 'On a page' },
            ]}
          />
          {back && back.shown.length > 1 && (
            <Segmented<number>
              size="small"
              aria-label="Shown how wide"
              value={at?.shownWidth ?? 0}
              onChange={setWidth}
              options={back.shown.map(({ shownWidth }) => ({ value: shownWidth, label: `${shownWidth} px wide` }))}
            />
          )}
          <span className="row">
            <Button
              size="small"
              disabled={index <= 0}
              title="The file before (key ,)"
              onClick={() => onOpen(files[index - 1]?.position ?? 0)}
            >
              ‹
            </Button>
            <span className="small quiet">
              {index + 1} of {files.length}
            </span>
            <Button
              size="small"
              disabled={index >= files.length - 1}
              title="The next file (key .)"
              onClick={() => onOpen(files[index + 1]?.position ?? 0)}
            >
              ›
            </Button>
          </span>
        </div>
        {mode === 'page' && <NeutralPage run={run} file={file} at={at} />}
        {mode === 'compare' && back && at && <Compared run={run} file={file} at={at} goTo={goTo} />}
        {mode === 'compare' && !at && (
          <div className="shown-nothing">
            <img alt={`${line.place}, delivered`} src={runPictureUrl(run, line.sha256, 1200)} />
          </div>
        )}
      </div>
      <ShownFigures
        file={file}
        at={at}
        onWorst={
          at && (() => setGoTo({ x: at.worst.left + at.worst.width / 2, y: at.worst.top + at.worst.height / 2 }))
        }
      />
    </section>
  );
}

const surround: Surround = 'light';

/** Delivered and as shown, at the dimensions at which it is shown. */
function Compared(props: { run: DryRun; file: DryRunFile; at: ShownAt; goTo: { x: number; y: number } | null }) {
  const { run, file, at, goTo } = props;
  const { line, outcome } = file;
  if (outcome?.state !== 'shown') return null;
  const { lost } = outcome.back;
  /** The delivered file lies so that what was cut off it is outside of what is shown. */
  const delivered = ({ layer, scale }: View) => {
    const times = (at.width * scale) / (line.width - lost.left - lost.right);
    return (
      <span
        className="compare-layer shown-clip"
        style={{ left: layer.left, top: layer.top, width: at.width * scale, height: at.height * scale }}
      >
        <img
          alt="Delivered"
          className="compare-layer"
          src={runPictureUrl(run, line.sha256)}
          style={{
            left: -lost.left * times,
            top: -lost.top * times,
            width: line.width * times,
            height: line.height * times,
          }}
        />
      </span>
    );
  };
  const shown = ({ layer }: View) => (
    <img alt="As shown" className="compare-layer" src={runPictureUrl(run, at.sha256)} style={layer} />
  );
  return (
    <CompareRoom
      key={`${file.position} ${at.shownWidth}`}
      label="Delivered and as shown"
      file={at}
      shownWidths={[]}
      spots={[
        {
          id: 'worst',
          name: 'The worst spot',
          centre: { x: at.worst.left + at.worst.width / 2, y: at.worst.top + at.worst.height / 2 },
        },
      ]}
      before={{ word: 'Delivered', draw: delivered, key: 'd' }}
      after={{ word: 'As shown', draw: shown }}
      surround={surround}
      goTo={goTo}
      overlay={({ layer, scale }) => (
        <span
          className="worst-spot"
          title={`The worst spot: ${at.worst.similarity.toFixed(1)} of 100`}
          style={{
            left: layer.left + at.worst.left * scale,
            top: layer.top + at.worst.top * scale,
            width: at.worst.width * scale,
            height: at.worst.height * scale,
          }}
        />
      )}
    />
  );
}

/** Esc goes back; full stop and comma go from file to file. */
function useKeys(onBack: () => void, onStep: (by: -1 | 1) => void) {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (isTyping(event.target) || event.ctrlKey || event.metaKey) return;
      if (event.key === 'Escape') onBack();
      else if (event.key === '.') onStep(1);
      else if (event.key === ',') onStep(-1);
    };
    document.addEventListener('keydown', onKey);
    return () => document.removeEventListener('keydown', onKey);
  });
}
