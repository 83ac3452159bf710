import { shippedStyles } from '@inkwell/core/lettering';
import type { EmblemItem, Item, LetterStyle, NamedLetterStyle, Original } from '@inkwell/core/model';
import { Button, Checkbox, Input } from 'antd';
import equal from 'fast-deep-equal';
import { useMemo, useState } from 'react';
import { useLetterStyles } from '../../../api/letterStyles.ts';
import { ColourField } from '../../../parts/ColourField.tsx';
import { TuneField } from '../finish/TuneField.tsx';
import { newWords } from './newItems.ts';
import { OwnStyles } from './OwnStyles.tsx';
import { StyleFields } from './StyleFields.tsx';
import { StyleTiles } from './StyleTiles.tsx';
import { chosenItem, type UsedLettering, useLettering } from './useLettering.ts';

/** The styles that ship, and those that people made. */
function useNamedStyles(): readonly NamedLetterStyle[] {
  const { data: own } = useLetterStyles();
  return useMemo(() => [...shippedStyles, ...(own ?? [])], [own]);
}

const firstPlate: EmblemItem['plate'] = { colour: '#f4ecd8', opacity: 0.95, rounding: 0.2 };

/** How the chosen item looks: twelve styles on one's own picture, and every number of the one it has. */
export function StylePanel(props: {
  projectId: string;
  original: Original;
  chosenId: string | null;
  onChoose: (id: string) => void;
}) {
  const { projectId, original, chosenId, onChoose } = props;
  const lettering = useLettering(projectId);
  const named = useNamedStyles();
  const chosen = chosenItem(lettering.items, chosenId);
  if (!chosen) return <FirstWords original={original} lettering={lettering} onChoose={onChoose} />;
  const share = (label: string, hint: string, value: number, on: (value: number) => Item) => (
    <TuneField
      label={label}
      hint={hint}
      value={value}
      least={0}
      most={1}
      step={0.01}
      times={100}
      unit="%"
      onDrag={(next) => next !== null && lettering.write(on(next))}
      onSet={(next) => lettering.change(on(next))}
    />
  );
  if (chosen.kind === 'shape') {
    return (
      <aside className="letter-style" aria-label="Style">
        <h2 className="minor-title">{chosen.name}</h2>
        <div className="letter-field">
          <span>Colour</span>
          <ColourField
            label={`Colour of ${chosen.name}`}
            value={chosen.colour}
            original={original}
            onChange={(colour) => lettering.change({ ...chosen, colour })}
          />
        </div>
        {share('Opacity', 'How much of the picture it hides', chosen.opacity, (opacity) => ({ ...chosen, opacity }))}
      </aside>
    );
  }
  if (chosen.kind === 'emblem') {
    const { plate } = chosen;
    return (
      <aside className="letter-style" aria-label="Style">
        <h2 className="minor-title">{chosen.name}</h2>
        {share(
          'Clear space',
          'What stays free round it, as a share of its longer side',
          chosen.clearSpace,
          (clearSpace) => ({
            ...chosen,
            clearSpace,
          }),
        )}
        <Checkbox
          checked={plate !== null}
          onChange={({ target }) => lettering.change({ ...chosen, plate: target.checked ? firstPlate : null })}
        >
          On a plate
        </Checkbox>
        {plate && (
          <>
            <div className="letter-field">
              <span>Colour</span>
              <ColourField
                label="Colour of the plate"
                value={plate.colour}
                original={original}
                onChange={(colour) => lettering.change({ ...chosen, plate: { ...plate, colour } })}
              />
            </div>
            {share('Rounding', 'Of the plate’s corners', plate.rounding, (rounding) => ({
              ...chosen,
              plate: { ...plate, rounding },
            }))}
            {share('Opacity', 'How much of the picture it hides', plate.opacity, (opacity) => ({
              ...chosen,
              plate: { ...plate, opacity },
            }))}
          </>
        )}
      </aside>
    );
  }
  const setStyle = (style: LetterStyle) => lettering.change({ ...chosen, style });
  const others = lettering.items.filter(
    (item) => item.kind === 'words' && item.id !== chosen.id && !equal(item.style, chosen.style),
  );
  return (
    <aside className="letter-style" aria-label="Style">
      <h2 className="minor-title">Style of {chosen.name}</h2>
      <StyleTiles styles={named} original={original} text={chosen.text} chosen={chosen.style} onChoose={setStyle} />
      <OwnStyles style={chosen.style} named={named} onChoose={setStyle} />
      {others.length > 0 && (
        <Button size="small" onClick={() => lettering.styleAll(chosen.style)}>
          Give this style to all words
        </Button>
      )}
      <StyleFields
        key={chosen.id}
        style={chosen.style}
        original={original}
        onDrag={(style) => lettering.write({ ...chosen, style })}
        onSet={setStyle}
      />
    </aside>
  );
}

/** Before anything is written: a field, and the styles with what is typed into it. */
function FirstWords(props: { original: Original; lettering: UsedLettering; onChoose: (id: string) => void }) {
  const { original, lettering, onChoose } = props;
  const named = useNamedStyles();
  const [text, setText] = useState('');
  const said = text.trim() === '' ? 'Your words' : text;
  const begin = (style?: LetterStyle) => {
    const item = newWords('title', [], { text: said, ...(style ? { style } : {}) });
    lettering.add(item);
    onChoose(item.id);
  };
  return (
    <aside className="letter-style" aria-label="Style">
      <h2 className="minor-title">Write what it says</h2>
      <Input.TextArea
        aria-label="Write what it says"
        autoSize={{ minRows: 2, maxRows: 4 }}
        maxLength={600}
        placeholder="A title, a date, a number …"
        value={text}
        onChange={({ target }) => setText(target.value)}
      />
      <p className="quiet small">Choose how it looks. Every frame lays it out anew, and you can change all of it.</p>
      <StyleTiles styles={named} original={original} text={said} chosen={null} onChoose={begin} />
    </aside>
  );
}
