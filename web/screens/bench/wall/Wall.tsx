import './Wall.css';
import { type Finding, formatLimit, formatWeight, limitFor, type Measured } from '@inkwell/core/model';
import { Button } from 'antd';
import { memo, useEffect, useRef } from 'react';
import { OthersHere } from '../../../parts/OthersHere.tsx';
import { FramePicture } from '../../../parts/pictures/FramePicture.tsx';
import { WeightGauge } from '../../../parts/WeightGauge.tsx';
import { ClientMark } from '../../review/ClientSaid.tsx';
import { AudiencePicture } from '../closeUp/AudiencePicture.tsx';
import { PiecesOverlay } from '../closeUp/PiecesOverlay.tsx';
import { type BenchFrame, pictureOf, useFrameState } from '../frames/benchFrame.ts';
import { useBenchStore } from '../state/useBench.ts';
import { OldNumbers } from './OldNumbers.tsx';

/** All frames of one original, a row a network. Every picture takes the same area, whatever its shape. */
export function Wall(props: {
  frames: BenchFrame[];
  chosenId: string | undefined;
  measured: readonly Measured[] | undefined;
  /** Side of a square picture, in CSS pixels. */
  scale: number;
  onChoose: (frameId: string) => void;
  /** A frame is to be seen large. */
  onCloseUp: (frameId: string) => void;
  /** Leaves out frames that nothing was found about. */
  onlyFindings: boolean;
  /** Shows every frame at the widths at which the audience sees it, instead of all of the same area. */
  audience: boolean;
}) {
  const store = useBenchStore();
  const isMarked = (props.frames[0]?.original.marks.length ?? 0) > 0;
  const compose = (slug: string) => {
    const some = props.frames.filter(({ at }) => at.network.slug === slug);
    store.setFrames(new Map(some.map(({ frame }) => [frame.id, { composed: true }])));
  };
  const networks = [...new Map(props.frames.map(({ at }) => [at.network.slug, at.network])).values()];
  return (
    <div className="wall">
      {networks.map((network) => (
        <section key={network.slug} aria-label={network.name}>
          <h2 className="minor-title row spread">
            <span>
              {network.name}
              <OldNumbers slug={network.slug} />
            </span>
            {isMarked && (
              <Button
                size="small"
                type="text"
                aria-label={`Compose ${network.name} again`}
                title="Compose the frames of this network again from the marks"
                onClick={() => compose(network.slug)}
              >
                Compose
              </Button>
            )}
          </h2>
          <div className="wall-row">
            {props.frames
              .filter(({ at }) => at.network.slug === network.slug)
              .map((one) => (
                <WallFrame
                  key={one.frame.id}
                  one={one}
                  chosen={one.frame.id === props.chosenId}
                  measured={props.measured}
                  scale={props.scale}
                  onChoose={props.onChoose}
                  onCloseUp={props.onCloseUp}
                  onlyFindings={props.onlyFindings}
                  audience={props.audience}
                />
              ))}
          </div>
        </section>
      ))}
    </div>
  );
}

const WallFrame = memo(function WallFrame({
  one,
  chosen,
  measured,
  scale,
  onChoose,
  onCloseUp,
  onlyFindings,
  audience,
}: {
  one: BenchFrame;
  chosen: boolean;
  measured: readonly Measured[] | undefined;
  scale: number;
  onChoose: (frameId: string) => void;
  onCloseUp: (frameId: string) => void;
  onlyFindings: boolean;
  audience: boolean;
}) {
  const state = useFrameState(one, measured);
  const button = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    if (chosen) button.current?.scrollIntoView({ block: 'nearest' });
  }, [chosen]);
  if (!state || (onlyFindings && state.findings.length === 0)) return null;
  const { at, frame } = one;
  const { output, grid, numbers } = state;
  const width = Math.round(scale * Math.sqrt(output.width / output.height));
  const limit = limitFor(at.place, state.settings.format);
  // A tile of a strip or a quilt is shown at that width, a block as a whole.
  const tiles = grid && at.place.group?.kind !== 'block' ? grid.columns : 1;
  const shown = audience ? at.place.shownWidths.map((each) => each * tiles) : [];
  const weighed = state.weight
    ? `${formatWeight(state.weight.bytes, limit.unit)} of ${formatLimit(limit)}`
    : state.failure
      ? 'could not be measured'
      : 'measuring …';
  return (
    <button
      ref={button}
      type="button"
      className="plain-button wall-frame"
      aria-pressed={chosen}
      aria-label={`${at.network.name} ${at.place.name}, ${output.width} × ${output.height}, ${weighed}${findingWords(state.findings)}`}
      data-frame={frame.id}
      data-place={at.id}
      style={shown.length > 0 ? {} : { width: Math.max(width, 142) }}
      onClick={() => onChoose(frame.id)}
      onDoubleClick={() => onCloseUp(frame.id)}
    >
      {shown.length > 0 ? (
        <span className="wall-shown">
          {shown.map((each) => (
            <span key={each}>
              <AudiencePicture one={one} state={state} width={each} />
              <span className="wall-shown-width small">{each} px wide</span>
            </span>
          ))}
        </span>
      ) : (
        <span className="audience-picture">
          <FramePicture {...pictureOf(one, state)} width={width} />
          {grid && <PiecesOverlay grid={grid} numbers={numbers} />}
        </span>
      )}
      <span className="wall-caption">
        <span className="wall-name">
          <FindingDot findings={state.findings} />
          {at.place.name}
          <OthersHere projectId={frame.projectId} frameId={frame.id} />
        </span>
        <span>
          {grid
            ? `${numbers.length} × ${grid.piece.width} × ${grid.piece.height}`
            : `${output.width} × ${output.height}`}
        </span>
        <WeightGauge weight={state.weight} limit={limit} />
        <span>{weighed}</span>
        <ClientMark projectId={frame.projectId} frameId={frame.id} />
      </span>
    </button>
  );
});

const findingWords = (findings: Finding[]) => findings.map((one) => `. ${one.text}`).join('');

function FindingDot({ findings }: { findings: Finding[] }) {
  const [worst] = findings;
  if (!worst) return null;
  return <span className="finding-dot" data-level={worst.level} title={findings.map((one) => one.text).join('\n')} />;
}
