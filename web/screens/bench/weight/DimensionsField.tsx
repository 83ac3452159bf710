import { servingDimensions } from '@inkwell/core/framing';
import { dimensionsProblem, dimensionsToChoose } from '@inkwell/core/geometry';
import { type Dimensions, saidOf, sidesWords } from '@inkwell/core/model';
import { useMemo, useState } from 'react';
import { ChoiceField } from '../../../parts/fields/ChoiceField.tsx';
import { NumberField } from '../../../parts/fields/NumberField.tsx';
import type { BenchFrame, FrameState } from '../frames/benchFrame.ts';
import { useBenchStore } from '../state/useBench.ts';

const percent = (share: number) => `${Math.round(share * 100)} %`;
const keyOf = ({ width, height }: Dimensions) => `${width} ${height}`;

/** Which of several dimensions a frame has, where its place takes several, and why the program has chosen them. */
export function DimensionsField({ one, state }: { one: BenchFrame; state: FrameState }) {
  const store = useBenchStore();
  const place = saidOf(one.at.place);
  const { settings, output } = state;
  const [problem, setProblem] = useState<string | null>(null);
  const serving = useMemo(() => servingDimensions(place, one.original, settings), [place, one.original, settings]);
  const set = (dimensions: Dimensions | null) => {
    const wrong = dimensions && dimensionsProblem(place, dimensions);
    setProblem(wrong);
    if (!wrong) store.set('frames', one.frame.id, { dimensions });
  };
  if (typeof place.height !== 'number') {
    const { min, max } = place.height;
    return (
      <div className="choice-field">
        <span title={`${place.name} takes ${min} to ${max} px`}>Height</span>
        <NumberField
          label=""
          name="Height of the file"
          value={output.height}
          unit="px"
          onChange={(height) => set({ width: place.width, height: Math.min(max, Math.max(min, Math.round(height))) })}
        />
      </div>
    );
  }
  if (!serving) return null;
  const { best, wished } = serving;
  const choices = dimensionsToChoose(place, one.original);
  const isListed = choices.some((choice) => keyOf(choice) === keyOf(output));
  const isRange = place.otherDimensions?.kind === 'ratios';
  const why =
    keyOf(best.dimensions) === keyOf(wished.dimensions)
      ? `These are what ${place.name} wishes for; none that it takes shows the picture better.`
      : `These show ${percent(best.share)} of the picture${keptWords(best.kept, wished.kept)}; the ${sidesWords(wished.dimensions)} that ${place.name} wishes for show ${percent(wished.share)}.`;
  return (
    <>
      <ChoiceField<string>
        label="Dimensions"
        name="Dimensions of the frame"
        value={settings.dimensions ? keyOf(settings.dimensions) : 'serving'}
        choices={[
          ['serving', `${sidesWords(best.dimensions)}, what serves the picture`] as const,
          ...(isListed || !settings.dimensions ? choices : [...choices, output]).map(
            (choice) => [keyOf(choice), sidesWords(choice)] as const,
          ),
        ]}
        disabled={false}
        onChoose={(key) => {
          const [width = 0, height = 0] = key.split(' ').map(Number);
          set(key === 'serving' ? null : { width, height });
        }}
      />
      {isRange && (
        <div className="choice-field">
          <span>Typed</span>
          <span className="row" style={{ gap: 4 }}>
            <NumberField
              label="W"
              name="Dimensions of the frame"
              value={output.width}
              unit="px"
              onChange={(width) => set({ width: Math.round(width), height: output.height })}
            />
            <NumberField
              label="H"
              name="Dimensions of the frame"
              value={output.height}
              unit="px"
              onChange={(height) => set({ width: output.width, height: Math.round(height) })}
            />
          </span>
        </div>
      )}
      {problem && (
        <p role="alert" className="small failure-line">
          {problem}
        </p>
      )}
      {settings.dimensions === null && <p className="quiet small">{why}</p>}
    </>
  );
}

const keptWords = (kept: number, wished: number): string => (kept > wished ? ', and keep more of its marks' : '');
