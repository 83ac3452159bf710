import { type FontFamily, type LetterStyle, letterRanges, type Original, type SetOff } from '@inkwell/core/model';
import { Checkbox } from 'antd';
import { useStore } from 'zustand';
import { pageFonts } from '../../../fonts/pageFonts.ts';
import { ChoiceField } from '../../../parts/fields/ChoiceField.tsx';
import { ColourField } from '../../../parts/fields/ColourField.tsx';
import { TuneField } from '../finish/TuneField.tsx';
import { FontField } from './FontField.tsx';
import { OwnFonts } from './OwnFonts.tsx';

const alignments: readonly (readonly [LetterStyle['align'], string])[] = [
  ['by place', 'To the side it stands at'],
  ['start', 'At their beginning'],
  ['middle', 'In the middle'],
  ['end', 'At their end'],
];
const cases: readonly (readonly [LetterStyle['case'], string])[] = [
  ['as written', 'As written'],
  ['capitals', 'Capitals'],
];
const setOffs: readonly (readonly [SetOff['kind'], string])[] = [
  ['none', 'Nothing'],
  ['outline', 'An outline'],
  ['shadow', 'A shadow'],
  ['plate', 'A plate'],
  ['shade', 'A shade from the edge'],
];

/** What each kind begins with. */
const firstOf: Record<SetOff['kind'], SetOff> = {
  none: { kind: 'none' },
  outline: { kind: 'outline', width: 0.06, colour: '#16202c' },
  shadow: { kind: 'shadow', right: 0, down: 0.03, blur: 0.09, colour: '#0b1118', opacity: 0.8 },
  plate: { kind: 'plate', padding: 0.25, rounding: 0.1, colour: '#16202c', opacity: 0.92 },
  shade: { kind: 'shade', colour: '#0e1620', opacity: 0.7, reach: 0.55 },
};

/** What is offered between the ends of a range that a variable font has: every so many. */
const every = { weight: 100, width: 10 } as const;

/** The weights or widths that a family has; of a range, its ends and what lies between them. */
function stepsOf({ files }: FontFamily, of: 'weight' | 'width'): string[] {
  const steps = files.flatMap(({ [of]: { least, most } }) => {
    const first = Math.ceil(least / every[of]) * every[of];
    const between = Array.from(
      { length: Math.max(0, Math.floor((most - first) / every[of]) + 1) },
      (_, at) => first + at * every[of],
    );
    return least === most ? [least] : [least, ...between, most];
  });
  return [...new Set(steps)].sort((a, b) => a - b).map(String);
}

const none: readonly FontFamily[] = [];

interface Numbered {
  label: string;
  hint: string;
  value: number;
  range: { least: number; most: number };
  times?: number;
  unit?: string;
  on: (value: number) => LetterStyle;
}

/** Every number of a style. */
export function StyleFields(props: {
  style: LetterStyle;
  original: Original;
  /** While a slider moves. */
  onDrag: (style: LetterStyle) => void;
  onSet: (style: LetterStyle) => void;
}) {
  const { style, original, onDrag, onSet } = props;
  const families = useStore(pageFonts, ({ book }) => book?.families) ?? none;
  const family = families.find(({ id }) => id === style.family);
  const weights = family ? stepsOf(family, 'weight') : [];
  const widths = family ? stepsOf(family, 'width') : [];
  const closest = (steps: string[], value: number) =>
    [...steps].sort((a, b) => Math.abs(Number(a) - value) - Math.abs(Number(b) - value))[0] ?? String(value);
  const numbers = (some: readonly Numbered[]) =>
    some.map(({ label, hint, value, range, times = 100, unit = '% em', on }) => (
      <TuneField
        key={label}
        label={label}
        hint={hint}
        value={value}
        least={range.least}
        most={range.most}
        step={0.005}
        times={times}
        unit={unit}
        onDrag={(next) => next !== null && onDrag(on(next))}
        onSet={(next) => onSet(on(next))}
      />
    ));
  const colour = (label: string, value: string, on: (colour: string) => LetterStyle) => (
    <div className="letter-field" key={label}>
      <span>{label}</span>
      <ColourField label={label} value={value} original={original} onChange={(next) => onSet(on(next))} />
    </div>
  );
  return (
    <div className="letter-fields">
      <FontField label="Font" family={style.family} onChoose={(next) => onSet({ ...style, family: next })} />
      <OwnFonts family={family ?? null} onAdded={(id) => onSet({ ...style, family: id })} />
      <ChoiceField
        label="Weight"
        value={closest(weights, style.weight)}
        choices={weights.map((weight) => [weight, weight])}
        disabled={weights.length < 2}
        onChoose={(weight) => onSet({ ...style, weight: Number(weight) })}
      />
      {widths.length > 1 && (
        <ChoiceField
          label="Width"
          value={closest(widths, style.width)}
          choices={widths.map((width) => [width, `${width} %`])}
          disabled={false}
          onChoose={(width) => onSet({ ...style, width: Number(width) })}
        />
      )}
      {numbers([
        {
          label: 'Letter-spacing',
          hint: 'What is added after every letter',
          value: style.letterSpacing,
          range: letterRanges.letterSpacing,
          on: (letterSpacing) => ({ ...style, letterSpacing }),
        },
        {
          label: 'Line-height',
          hint: 'From line to line',
          value: style.lineHeight,
          range: letterRanges.lineHeight,
          on: (lineHeight) => ({ ...style, lineHeight }),
        },
      ])}
      <ChoiceField
        label="Alignment"
        value={style.align}
        choices={alignments}
        disabled={false}
        onChoose={(align) => onSet({ ...style, align })}
      />
      <ChoiceField
        label="Case"
        value={style.case}
        choices={cases}
        disabled={false}
        onChoose={(next) => onSet({ ...style, case: next })}
      />
      {colour('Colour', style.colour, (next) => ({ ...style, colour: next }))}
      <Checkbox
        checked={style.otherColour !== null}
        onChange={({ target }) => onSet({ ...style, otherColour: target.checked ? '#16202c' : null })}
      >
        Another colour where this one cannot be read
      </Checkbox>
      {style.otherColour !== null &&
        colour('Other colour', style.otherColour, (next) => ({ ...style, otherColour: next }))}
      <ChoiceField
        label="Set off by"
        value={style.setOff.kind}
        choices={setOffs}
        disabled={false}
        onChoose={(kind) => onSet({ ...style, setOff: firstOf[kind] })}
      />
      {setOffNumbers(style, numbers)}
      {style.setOff.kind !== 'none' &&
        colour(`Colour of the ${style.setOff.kind}`, style.setOff.colour, (next) => ({
          ...style,
          setOff: { ...(style.setOff as Exclude<SetOff, { kind: 'none' }>), colour: next },
        }))}
    </div>
  );
}

function setOffNumbers(style: LetterStyle, numbers: (some: readonly Numbered[]) => React.ReactNode): React.ReactNode {
  const { setOff } = style;
  const opacity = (value: number, on: (value: number) => SetOff): Numbered => ({
    label: 'Opacity',
    hint: 'How much of the picture it hides',
    value,
    range: letterRanges.opacity,
    unit: '%',
    on: (next) => ({ ...style, setOff: on(next) }),
  });
  switch (setOff.kind) {
    case 'none':
      return null;
    case 'outline':
      return numbers([
        {
          label: 'Thickness',
          hint: 'Outside of the letters',
          value: setOff.width,
          range: letterRanges.outline,
          on: (width) => ({ ...style, setOff: { ...setOff, width } }),
        },
      ]);
    case 'shadow':
      return numbers([
        {
          label: 'To the right',
          hint: 'How far the shadow is moved',
          value: setOff.right,
          range: letterRanges.shadowShift,
          on: (right) => ({ ...style, setOff: { ...setOff, right } }),
        },
        {
          label: 'Down',
          hint: 'How far the shadow is moved',
          value: setOff.down,
          range: letterRanges.shadowShift,
          on: (down) => ({ ...style, setOff: { ...setOff, down } }),
        },
        {
          label: 'Blur',
          hint: 'How soft the shadow is',
          value: setOff.blur,
          range: letterRanges.shadowBlur,
          on: (blur) => ({ ...style, setOff: { ...setOff, blur } }),
        },
        opacity(setOff.opacity, (next) => ({ ...setOff, opacity: next })),
      ]);
    case 'plate':
      return numbers([
        {
          label: 'Padding',
          hint: 'From the letters to the plate’s edge',
          value: setOff.padding,
          range: letterRanges.padding,
          on: (padding) => ({ ...style, setOff: { ...setOff, padding } }),
        },
        {
          label: 'Rounding',
          hint: 'Of the plate’s corners',
          value: setOff.rounding,
          range: letterRanges.rounding,
          unit: '%',
          on: (rounding) => ({ ...style, setOff: { ...setOff, rounding } }),
        },
        opacity(setOff.opacity, (next) => ({ ...setOff, opacity: next })),
      ]);
    case 'shade':
      return numbers([
        {
          label: 'Reach',
          hint: 'The share of the frame over which it fades',
          value: setOff.reach,
          range: letterRanges.reach,
          unit: '%',
          on: (reach) => ({ ...style, setOff: { ...setOff, reach } }),
        },
        opacity(setOff.opacity, (next) => ({ ...setOff, opacity: next })),
      ]);
  }
}
