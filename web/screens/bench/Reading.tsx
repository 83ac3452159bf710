import './Reading.css';
import { clampWindow, enlargement, largestWindow, windowAt, windowRect } from '@inkwell/core/geometry';
import { type DeliveryFormat, DeliveryFormatSchema, formatLabel, formatLimit, formatWeight } from '@inkwell/core/model';
import { Button, Select } from 'antd';
import type { FrameWeight } from '../../api/projects.ts';
import { NumberField } from '../../parts/NumberField.tsx';
import { type BenchFrame, useFrameState } from './benchFrame.ts';
import { useBenchStore } from './useBench.ts';

/** What there is to say about the chosen frame, in numbers that can be typed, and its findings with their fixes. */
export function Reading({ one, weights }: { one: BenchFrame; weights: readonly FrameWeight[] | undefined }) {
  const store = useBenchStore();
  const state = useFrameState(one, weights);
  if (!state) return null;
  const { at, output, original, frame } = one;
  const { window, format } = state.settings;
  const rect = windowRect(window, output);
  const times = enlargement(window, output);
  const place = (left: number, top: number, span: number) =>
    store.getState().set(frame.id, { window: clampWindow(windowAt(left, top, span, output), original, output) });
  const { limit } = at.place;
  return (
    <section className="reading" aria-label="Reading">
      <div className="reading-line">
        <strong className="reading-name">
          {at.network.name} · {at.place.name}
        </strong>
        <span className="reading-numbers">
          <NumberField
            label="Left"
            unit="px"
            value={rect.left}
            onChange={(left) => place(left, rect.top, rect.width)}
          />
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
        </span>
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
          value={format}
          style={{ width: 84 }}
          onChange={(value) => store.getState().set(frame.id, { format: value })}
          options={DeliveryFormatSchema.options.map((value) => ({
            value,
            label: formatLabel[value],
            disabled: !at.place.formats.includes(value),
          }))}
        />
        <Button
          size="small"
          onClick={() => store.getState().set(frame.id, { window: largestWindow(original, output) })}
        >
          Reset
        </Button>
      </div>
      <ul className="reading-findings" aria-label="Findings">
        {state.findings.length === 0 && (
          <li className="quiet">
            {state.weight ? 'Nothing to find fault with.' : 'Nothing found so far; the weight is still being measured.'}
          </li>
        )}
        {state.findings.map((finding) => (
          <li key={finding.kind} data-level={finding.level}>
            <strong>{finding.level === 'blocker' ? 'Blocker' : 'Caution'}</strong> {finding.text}{' '}
            {finding.fix && (
              <Button size="small" onClick={() => finding.fix && store.getState().set(frame.id, finding.fix.change)}>
                {finding.fix.label}
              </Button>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
