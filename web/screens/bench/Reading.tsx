import './Reading.css';
import { RotateLeftOutlined, RotateRightOutlined, SwapOutlined } from '@ant-design/icons';
import {
  boundsOf,
  clampWindow,
  enlargement,
  turnBy,
  turnParts,
  turnTo,
  windowAt,
  windowRect,
} from '@inkwell/core/geometry';
import {
  type DeliveryFormat,
  DeliveryFormatSchema,
  formatLabel,
  formatLimit,
  formatWeight,
  type Window,
} from '@inkwell/core/model';
import { Button, Select, Tooltip } from 'antd';
import type { FrameWeight } from '../../api/projects.ts';
import { NumberField } from '../../parts/NumberField.tsx';
import { BackingField } from './BackingField.tsx';
import { type BenchFrame, type FrameState, resetChange, useFrameState } from './benchFrame.ts';
import { useBenchStore } from './useBench.ts';

/** Shapes that differ less than this are alike enough to share a window. */
const likeRatio = 0.03;

/** What there is to say about the chosen frame, in numbers that can be typed, and its findings with their fixes. */
export function Reading({
  one,
  frames,
  weights,
}: {
  one: BenchFrame;
  frames: readonly BenchFrame[];
  weights: readonly FrameWeight[] | undefined;
}) {
  const store = useBenchStore();
  const state = useFrameState(one, weights);
  if (!state) return null;
  const { at, output, frame } = one;
  const { settings, window, findings } = state;
  const { limit } = at.place;
  const times = enlargement(window, output);
  return (
    <section className="reading" aria-label="Reading">
      <div className="reading-line">
        <strong className="reading-name">
          {at.network.name} · {at.place.name}
        </strong>
        <Placement one={one} state={state} frames={frames} />
        <span className="reading-fact" title="Output pixels for one pixel of the original">
          {times > 1 ? `enlarged ${times.toFixed(2)}×` : `${(1 / times).toFixed(2)} original px to 1`}
        </span>
        <span className="reading-fact">
          {state.weight
            ? `${formatWeight(state.weight.bytes, limit.unit)} of ${formatLimit(limit)}${state.weight.quality === null ? '' : `, quality ${state.weight.quality}`}`
            : 'measuring the weight …'}
        </span>
        <Select<DeliveryFormat>
          size="small"
          aria-label="Format"
          value={settings.format}
          style={{ width: 84 }}
          onChange={(format) => store.getState().set('frames', frame.id, { format })}
          options={DeliveryFormatSchema.options.map((value) => ({
            value,
            label: formatLabel[value],
            disabled: !at.place.formats.includes(value),
          }))}
        />
      </div>
      <Numbers one={one} state={state} />
      <ul className="reading-findings" aria-label="Findings">
        {findings.length === 0 && (
          <li className="quiet">
            {state.weight ? 'Nothing to find fault with.' : 'Nothing found so far; the weight is still being measured.'}
          </li>
        )}
        {findings.map((finding) => (
          <li key={`${finding.kind} ${finding.text}`} data-level={finding.level}>
            <strong>{finding.level === 'blocker' ? 'Blocker' : 'Caution'}</strong> {finding.text}{' '}
            {finding.fix && (
              <Button
                size="small"
                onClick={() => finding.fix && store.getState().set('frames', frame.id, finding.fix.change)}
              >
                {finding.fix.label}
              </Button>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** How the frame came by its window, and the ways to another one. */
function Placement({ one, state, frames }: { one: BenchFrame; state: FrameState; frames: readonly BenchFrame[] }) {
  const store = useBenchStore();
  const { frame, original, output } = one;
  const { settings, window } = state;
  const alike = frames.filter(
    (other) =>
      other.frame.id !== frame.id &&
      Math.abs((other.output.height / other.output.width) * (output.width / output.height) - 1) < likeRatio,
  );
  const copy = () => {
    const { backing } = settings;
    const change = (other: BenchFrame) => ({
      window: clampWindow(window, boundsOf(original, backing), other.output),
      composed: false,
      backing,
    });
    store.getState().setFrames(new Map(alike.map((other) => [other.frame.id, change(other)])));
  };
  const reset = () => store.getState().set('frames', frame.id, resetChange(one));
  return (
    <span className="reading-placement">
      <span className="quiet" data-testid="placement">
        {settings.composed ? (settings.backing ? 'shown whole' : 'composed') : 'moved by hand'}
      </span>
      {!settings.composed && (
        <Button
          size="small"
          title="Compose again from the marks (C)"
          onClick={() => store.getState().set('frames', frame.id, { composed: true })}
        >
          Compose again
        </Button>
      )}
      <Button size="small" title="The largest window in the middle (0)" onClick={reset}>
        Reset
      </Button>
      {alike.length > 0 && (
        <Tooltip title={alike.map((other) => `${other.at.network.name} ${other.at.place.name}`).join(', ')}>
          <Button size="small" onClick={copy}>
            Copy to {alike.length} of like shape
          </Button>
        </Tooltip>
      )}
    </span>
  );
}

/** Where the window lies and how it is turned, in numbers. */
function Numbers({ one, state }: { one: BenchFrame; state: FrameState }) {
  const store = useBenchStore();
  const { output, original, frame, at } = one;
  const { settings, window } = state;
  const bounds = boundsOf(original, settings.backing);
  const rect = windowRect(window, output);
  const set = (next: Window) =>
    store.getState().set('frames', frame.id, { window: clampWindow(next, bounds, output), composed: false });
  const place = (left: number, top: number, span: number) => set(windowAt(left, top, span, output, window));
  const { quarter, tilt } = turnParts(window.turn);
  /** Turning and mirroring leave a composed frame composed: it is composed anew, so turned. */
  const pose = (next: Window) => store.getState().set('frames', frame.id, { window: next });
  return (
    <div className="reading-line">
      <span className="reading-numbers">
        <NumberField label="Left" unit="px" value={rect.left} onChange={(left) => place(left, rect.top, rect.width)} />
        <NumberField label="Top" unit="px" value={rect.top} onChange={(top) => place(rect.left, top, rect.width)} />
        <NumberField
          label="Width"
          unit="px"
          value={rect.width}
          onChange={(width) => place(rect.left, rect.top, width)}
        />
        <NumberField
          label="Height"
          unit="px"
          value={rect.height}
          onChange={(height) => place(rect.left, rect.top, (height * output.width) / output.height)}
        />
        <NumberField
          label="Straighten"
          unit="°"
          value={tilt}
          onChange={(degrees) => pose(turnTo(window, quarter + Math.max(-45, Math.min(45, degrees)), bounds, output))}
        />
        <Button
          size="small"
          icon={<RotateLeftOutlined />}
          aria-label="Turn left by a quarter"
          title="Turn left by a quarter ([)"
          onClick={() => pose(turnBy(window, -90, bounds, output))}
        />
        <Button
          size="small"
          icon={<RotateRightOutlined />}
          aria-label="Turn right by a quarter"
          title="Turn right by a quarter (])"
          onClick={() => pose(turnBy(window, 90, bounds, output))}
        />
        <Button
          size="small"
          icon={<SwapOutlined />}
          aria-label="Mirror"
          aria-pressed={window.mirror}
          title="Mirror (M)"
          onClick={() => pose({ ...window, mirror: !window.mirror })}
        />
      </span>
      <BackingField
        backing={settings.backing}
        formats={at.place.formats}
        onChange={(backing) => store.getState().set('frames', frame.id, { backing })}
      />
    </div>
  );
}
