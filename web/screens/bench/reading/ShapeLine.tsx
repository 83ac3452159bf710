import { carriesTransparency, type FrameChange, type Ring, ringWidths, stretches } from '@inkwell/core/model';
import { flattenColour } from '@inkwell/core/planning';
import { Select } from 'antd';
import { useColours } from '../../../api/library/originals.ts';
import { ColourField } from '../../../parts/fields/ColourField.tsx';
import { NumberField } from '../../../parts/fields/NumberField.tsx';
import type { BenchFrame, FrameState } from '../frames/benchFrame.ts';
import { useBenchStore } from '../state/useBench.ts';

type RingChoice = Ring['side'] | 'none';
type Cut = 'full' | 'cut out' | 'flattened';

/** A ring takes this part of the frame's shorter side at first. */
const firstRing = 0.04;
const clamped = (value: number, least: number, most: number) => Math.min(most, Math.max(least, value));

/** What only some frames have: a ring and how a round frame is delivered, a colour under transparency, a stretch. */
export function ShapeLine({ one, state }: { one: BenchFrame; state: FrameState }) {
  const store = useBenchStore();
  const { original, frame, at } = one;
  const { settings, output } = state;
  const { ring, stretch, cutOut, flatten } = settings;
  const { data: colours } = useColours(original.id);
  const set = (change: FrameChange) => store.set('frames', frame.id, change);
  const isRound = at.place.shape !== 'rectangle' && !at.place.group;
  const transparent = original.hasAlpha || settings.backing?.kind === 'transparent';
  const flattens = (transparent || (isRound && cutOut)) && (flatten !== null || !carriesTransparency(settings.format));
  if (!isRound && stretch === 1 && !flattens) return null;

  const chooseRing = (side: RingChoice) => {
    if (side === 'none') return set({ ring: null });
    const width = clamped(Math.round(Math.min(output.width, output.height) * firstRing), 1, ringWidths.most);
    set({ ring: { width, colour: colours?.[1] ?? colours?.[0] ?? flattenColour, ...ring, side } });
  };
  const clear = at.place.formats.find(carriesTransparency);
  const cut: Cut = !cutOut ? 'full' : flatten === null ? 'cut out' : 'flattened';
  const chooseCut = (next: Cut) => {
    if (next === 'full') set({ cutOut: false, flatten: transparent ? flatten : null });
    else if (next === 'flattened') set({ cutOut: true, flatten: flatten ?? flattenColour });
    else
      set({
        cutOut: true,
        flatten: null,
        format: carriesTransparency(settings.format) ? settings.format : (clear ?? 'png'),
      });
  };
  return (
    <div className="reading-line shape-line">
      {isRound && (
        <span className="reading-numbers">
          <Select<RingChoice>
            size="small"
            aria-label="Ring"
            value={ring?.side ?? 'none'}
            style={{ width: 196 }}
            onChange={chooseRing}
            options={[
              { value: 'none', label: 'No ring' },
              { value: 'outside', label: 'Ring outside the picture' },
              { value: 'inside', label: 'Ring over the picture' },
            ]}
          />
          {ring && (
            <>
              <NumberField
                name="Ring"
                label="Width"
                unit="px"
                value={ring.width}
                onChange={(width) =>
                  set({ ring: { ...ring, width: clamped(Math.round(width), ringWidths.least, ringWidths.most) } })
                }
              />
              <ColourField
                label="Colour of the ring"
                value={ring.colour}
                original={original}
                onChange={(colour) => set({ ring: { ...ring, colour } })}
              />
            </>
          )}
          <Select<Cut>
            size="small"
            aria-label="Delivered as"
            value={cut}
            style={{ width: 262 }}
            onChange={chooseCut}
            options={[
              { value: 'full', label: 'Full; the network masks it' },
              { value: 'cut out', label: 'Cut out, transparent around it', disabled: !clear },
              { value: 'flattened', label: 'Cut out, on a colour' },
            ]}
          />
        </span>
      )}
      {flattens && (
        <span className="colour-field">
          <span className="quiet small">{isRound && cutOut ? 'Round it' : 'Under transparency'}</span>
          <ColourField
            label="Colour under transparency"
            value={flatten ?? flattenColour}
            original={original}
            onChange={(colour) => set({ flatten: colour })}
          />
        </span>
      )}
      {stretch !== 1 && (
        <NumberField
          label="Stretch"
          unit="%"
          value={stretch * 100}
          onChange={(percent) => set({ stretch: clamped(percent / 100, stretches.least, stretches.most) })}
        />
      )}
    </div>
  );
}
