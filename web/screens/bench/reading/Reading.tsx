import './Reading.css';
import { enlargement } from '@inkwell/core/geometry';
import {
  carriesTransparency,
  formatLabel,
  formatLimit,
  formatWeight,
  type ImageFormat,
  ImageFormatSchema,
  type MarkToCompose,
  type Measured,
} from '@inkwell/core/model';
import { isCutOut } from '@inkwell/core/planning';
import { seenWords } from '@inkwell/core/proposing';
import { useQueryClient } from '@tanstack/react-query';
import { Button, Select } from 'antd';
import { useLayoutEffect, useRef } from 'react';
import { measureFirst } from '../../../api/projects/frames.ts';
import { askMeasured } from '../../../api/projects/measured.ts';
import { useUndoNote } from '../../../parts/useUndoNote.tsx';
import { ClientSaid } from '../../review/ClientSaid.tsx';
import { type BenchFrame, useFrameState } from '../frames/benchFrame.ts';
import { useMeasuredFirst } from '../frames/useMeasuredFirst.ts';
import { useBench, useBenchStore } from '../state/useBench.ts';
import { Numbers } from './Numbers.tsx';
import { PiecesLine } from './PiecesLine.tsx';
import { Placement } from './Placement.tsx';
import { ShapeLine } from './ShapeLine.tsx';

/** What there is to say about the chosen frame, in numbers that can be typed, and its findings with their fixes. */
export function Reading({
  one,
  frames,
  measured,
  isPlain,
  onFinish,
  onWeight,
}: {
  one: BenchFrame;
  frames: readonly BenchFrame[];
  measured: readonly Measured[] | undefined;
  /** True where its window and shape are not what it is about. */
  isPlain: boolean;
  onFinish: () => void;
  onWeight: () => void;
}) {
  const store = useBenchStore();
  const client = useQueryClient();
  const note = useUndoNote();
  const state = useFrameState(one, measured);
  useMeasuredFirst(one.frame.id, state);
  const list = useHeldHeight();
  if (!state) return null;
  const { at, frame } = one;
  const { settings, window, findings } = state;
  const { limit } = at.place;
  const tryAgain = () =>
    state.savedHash &&
    measureFirst(frame.id, state.savedHash, true)
      .then(() => askMeasured(client, frame.projectId, new Set([frame.id])))
      .catch(note.failed);
  const proposed = proposedIn(one);
  const times = enlargement(window, state.contentArea) * Math.max(1, 1 / settings.stretch);
  // What is cut out with nothing round it needs a format that can say so.
  const clearOnly = isCutOut(at.place, settings) && settings.flatten === null;
  return (
    <section className="reading" aria-label="Reading">
      <div className="reading-line">
        <strong className="reading-name">
          {at.network.name} · {at.place.name}
        </strong>
        <Placement one={one} state={state} frames={frames} />
        <span className="reading-fact" title="Output pixels for one pixel of the original">
          {times > 1 ? `enlarged ${times.toFixed(2)}×` : `${(1 / times).toFixed(2)} px to 1`}
        </span>
        <Button
          size="small"
          title="What the file weighs, what was lost, and what it could weigh (W)"
          onClick={onWeight}
        >
          {state.weight
            ? `${formatWeight(state.weight.bytes, limit.unit)} of ${formatLimit(limit)}`
            : state.failure
              ? 'could not be measured'
              : 'measuring the weight …'}
        </Button>
        <Button size="small" title="Plain and finished, side by side (F)" onClick={onFinish}>
          Finish: {state.finish.finish.name}
        </Button>
        <Select<ImageFormat>
          size="small"
          aria-label="Format"
          value={settings.format}
          style={{ width: 84 }}
          onChange={(format) => store.set('frames', frame.id, { format })}
          options={ImageFormatSchema.options.map((value) => ({
            value,
            label: formatLabel[value],
            disabled: !at.place.formats.includes(value) || (clearOnly && !carriesTransparency(value)),
          }))}
        />
      </div>
      {!isPlain && (
        <>
          <Numbers one={one} state={state} />
          <PiecesLine one={one} state={state} />
          <ShapeLine one={one} state={state} />
        </>
      )}
      <ul ref={list} className="reading-findings" aria-label="Findings">
        <ClientSaid projectId={frame.projectId} frameId={frame.id} planHash={state.savedHash} />
        {state.failure && (
          <li data-level="caution">
            <strong>Could not be measured</strong> {state.failure}{' '}
            <Button size="small" onClick={tryAgain}>
              Try again
            </Button>
          </li>
        )}
        {settings.composed && !settings.backing && proposed.length > 0 && (
          <li className="quiet">Composed from what was seen: {seenWords(proposed)}.</li>
        )}
        {findings.length === 0 && !state.failure && (
          <li className="quiet">
            {!state.weight
              ? 'No findings so far. The weight is still being measured.'
              : state.isRead
                ? 'No findings.'
                : 'No findings so far. How well its words can be read is still being measured.'}
          </li>
        )}
        {findings.map((finding) => (
          <li key={`${finding.kind} ${finding.text}`} data-level={finding.level}>
            <strong>{finding.level === 'blocker' ? 'Blocker' : 'Caution'}</strong> {finding.text}{' '}
            {finding.fix && (
              <Button size="small" onClick={() => finding.fix && store.set('frames', frame.id, finding.fix.change)}>
                {finding.fix.label}
              </Button>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What was seen, as far as a frame is composed from it. */
const proposedIn = ({ original }: BenchFrame) => original.marks.filter((mark: MarkToCompose) => mark.proposed);

/** An element that keeps its height while something is moved: the stage above would jump under the hand otherwise. */
function useHeldHeight() {
  const element = useRef<HTMLUListElement>(null);
  const isMoving = useBench(({ moving }) => moving !== null);
  useLayoutEffect(() => {
    const list = element.current;
    if (list) list.style.height = isMoving ? `${list.offsetHeight}px` : '';
  }, [isMoving]);
  return element;
}
