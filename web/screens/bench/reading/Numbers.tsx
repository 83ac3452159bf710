import { RotateLeftOutlined, RotateRightOutlined, SwapOutlined } from '@ant-design/icons';
import { boundsOf, clampWindow, turnBy, turnParts, turnTo, windowAt, windowRect } from '@inkwell/core/geometry';
import type { Window } from '@inkwell/core/model';
import { Button, Segmented } from 'antd';
import { useState } from 'react';
import { NumberField } from '../../../parts/fields/NumberField.tsx';
import type { BenchFrame, FrameState } from '../frames/benchFrame.ts';
import { useBenchStore } from '../state/useBench.ts';
import { BackingField } from './BackingField.tsx';

type Unit = 'px' | '%';

/** Where the window lies and how it is turned, in numbers. */
export function Numbers({ one, state }: { one: BenchFrame; state: FrameState }) {
  const store = useBenchStore();
  const [unit, setUnit] = useState<Unit>('px');
  const { original, frame } = one;
  const { settings, window, contentArea } = state;
  const bounds = boundsOf(original, settings.backing);
  const rect = windowRect(window, contentArea);
  const set = (next: Window) =>
    store.set('frames', frame.id, { window: clampWindow(next, bounds, contentArea), composed: false });
  const place = (left: number, top: number, span: number) => set(windowAt(left, top, span, contentArea, window));
  const { quarter, tilt } = turnParts(window.turn);
  /** Turning and mirroring leave a composed frame composed: it is composed anew, so turned. */
  const pose = (next: Window) => store.set('frames', frame.id, { window: next });
  /** Original pixels for one of the unit. */
  const across = unit === 'px' ? 1 : original.width / 100;
  const down = unit === 'px' ? 1 : original.height / 100;
  return (
    <div className="reading-line">
      <span className="reading-numbers">
        <NumberField
          label="Left"
          unit={unit}
          value={rect.left / across}
          onChange={(left) => place(left * across, rect.top, rect.width)}
        />
        <NumberField
          label="Top"
          unit={unit}
          value={rect.top / down}
          onChange={(top) => place(rect.left, top * down, rect.width)}
        />
        <NumberField
          label="Width"
          unit={unit}
          value={rect.width / across}
          onChange={(width) => place(rect.left, rect.top, width * across)}
        />
        <NumberField
          label="Height"
          unit={unit}
          value={rect.height / down}
          onChange={(height) => place(rect.left, rect.top, (height * down * contentArea.width) / contentArea.height)}
        />
        <Segmented<Unit>
          size="small"
          aria-label="Unit of the window"
          value={unit}
          onChange={setUnit}
          options={[
            { value: 'px', label: 'px', title: 'Pixels of the original' },
            { value: '%', label: '%', title: 'Percent of the original' },
          ]}
        />
        <NumberField
          label="Straighten"
          unit="°"
          value={tilt}
          onChange={(degrees) =>
            pose(turnTo(window, quarter + Math.max(-45, Math.min(45, degrees)), bounds, contentArea))
          }
        />
        <Button
          size="small"
          icon={<RotateLeftOutlined />}
          aria-label="Turn left by a quarter"
          title="Turn left by a quarter ([)"
          onClick={() => pose(turnBy(window, -90, bounds, contentArea))}
        />
        <Button
          size="small"
          icon={<RotateRightOutlined />}
          aria-label="Turn right by a quarter"
          title="Turn right by a quarter (])"
          onClick={() => pose(turnBy(window, 90, bounds, contentArea))}
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
        formats={one.at.place.formats}
        original={original}
        onChange={(backing) => store.set('frames', frame.id, { backing })}
      />
    </div>
  );
}
