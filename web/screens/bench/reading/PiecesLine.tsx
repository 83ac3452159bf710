import '../closeUp/Pieces.css';
import { bridgedShare, gapPixels, spreadOf } from '@inkwell/core/geometry';
import type { FrameChange } from '@inkwell/core/model';
import { panelRange, planStrips } from '@inkwell/core/splitting';
import { Checkbox, Select } from 'antd';
import { useMemo } from 'react';
import type { BenchFrame, FrameState } from '../frames/benchFrame.ts';
import { useBenchStore } from '../state/useBench.ts';
import { ClosingField } from './ClosingField.tsx';

/** Into how many pieces a frame is cut, ranked by what that costs; bridged gaps; one quality for all or one each. */
export function PiecesLine({ one, state }: { one: BenchFrame; state: FrameState }) {
  const store = useBenchStore();
  const { original, frame, at } = one;
  const { settings } = state;
  const { group } = at.place;
  const ranked = useMemo(
    () => (group?.kind === 'panels' ? planStrips(original, [at.place], original.marks).proposals : []),
    [original, at.place, group],
  );
  const grid = spreadOf(at.place, settings);
  if (!group || !grid) return null;
  const set = (change: FrameChange) => store.set('frames', frame.id, change);
  const most = panelRange(at.place, settings.closing !== null)?.most ?? 0;
  const gap = gapPixels(at.place);
  const bridged = spreadOf(at.place, { ...settings, bridged: true });
  return (
    <div className="reading-line pieces-line">
      {group.kind === 'panels' && (
        <Select<number>
          size="small"
          aria-label="Panels"
          popupMatchSelectWidth={false}
          value={grid.columns}
          style={{ width: 330 }}
          onChange={(columns) => set({ grid: { columns, rows: 1 } })}
          options={ranked
            .filter(({ panels }) => panels <= most)
            .map(({ panels, against }, index) => ({
              value: panels,
              label: `${panels} panels${index === 0 ? ', suits it best' : ''}${against.length > 0 ? `: ${against.join(' ')}` : ''}`,
            }))}
        />
      )}
      <ClosingField one={one} state={state} onChange={set} />
      {group.kind === 'quilt' && (
        <Select<number>
          size="small"
          aria-label="Rows"
          value={grid.rows}
          style={{ width: 190 }}
          onChange={(rows) => set({ grid: { columns: group.columns, rows } })}
          options={Array.from({ length: group.maxRows - group.minRows + 1 }, (_, index) => {
            const rows = group.minRows + index;
            return { value: rows, label: `${rows} × ${group.columns} tiles` };
          })}
        />
      )}
      {group.kind === 'block' && (
        <span>
          {group.columns} × {group.rows} tiles
        </span>
      )}
      {gap > 0 && bridged && (
        <Checkbox checked={settings.bridged} onChange={({ target }) => set({ bridged: target.checked })}>
          Bridge the gaps ({gap} px each; {(bridgedShare(bridged) * 100).toFixed(1)} % hidden)
        </Checkbox>
      )}
      <Checkbox
        checked={settings.sharedQuality}
        onChange={({ target }) => set({ sharedQuality: target.checked })}
        title="All pieces take the quality of the one that needs the lowest, so that no grain changes at a seam"
      >
        One quality for all
      </Checkbox>
    </div>
  );
}
