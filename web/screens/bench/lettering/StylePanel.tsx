import { shippedStyles } from '@inkwell/core/lettering';
import type { EmblemItem, Item, LetterStyle, NamedLetterStyle, Original } from '@inkwell/core/model';
import { Button, Checkbox, Input } from 'antd';
import equal from 'fast-deep-equal';
import { memo, useDeferredValue, useMemo, useState } from 'react';
import { useLetterStyles } from '../../../api/library/letterStyles.ts';
import { ColourField } from '../../../parts/fields/ColourField.tsx';
import { TuneField } from '../finish/TuneField.tsx';
import { newWords } from './newItems.ts';
import { OwnStyles } from './OwnStyles.tsx';
import { StyleFields } from './StyleFields.tsx';
import { StyleTiles } from './StyleTiles.tsx';
import { chosenItem, type LetteringHands, useLettering, useLetteringHands } from './useLettering.ts';

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
  const items = useLettering();
  const hands = useLetteringHands(projectId);
  const named = useNamedStyles();
  const chosen = chosenItem(items, chosenId);
  const text = useDeferredValue(chosen?.kind === 'words' ? chosen.text : '');
  if (!chosen) return <FirstWords original={original} hands={hands} onChoose={onChoose} />;
  const share = (label: string, hint: string, value: number, on: (value: number) => Partial<Item>) => (
    <TuneField
      label={label}
      hint={hint}
      value={value}
      least={0}
      most={1}
      step={0.01}
      times={100}
      unit="%"
      onDrag={(next) => next !== null && hands.write(chosen.id, on(next))}
      onSet={(next) => hands.change(chosen.id, on(next))}
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
            onChange={(colour) => hands.change(chosen.id, { colour })}
          />
        </div>
        {share('Opacity', 'How much of the picture it hides', chosen.opacity, (opacity) => ({ opacity }))}
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
          (clearSpace) => ({ clearSpace }),
        )}
        <Checkbox
          checked={plate !== null}
          onChange={({ target }) => hands.change(chosen.id, { plate: target.checked ? firstPlate : null })}
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
                onChange={(colour) => hands.change(chosen.id, { plate: { ...plate, colour } })}
              />
            </div>
            {share('Rounding', 'Of the plate’s corners', plate.rounding, (rounding) => ({
              plate: { ...plate, rounding },
            }))}
            {share('Opacity', 'How much of the picture it hides', plate.opacity, (opacity) => ({
              plate: { ...plate, opacity },
            }))}
          </>
        )}
      </aside>
    );
  }
  const isLike = (item: Item) => item.kind !== 'words' || equal(item.style, chosen.style);
  return (
    <WordsStyle
      key={chosen.id}
      id={chosen.id}
      name={chosen.name}
      text={text}
      style={chosen.style}
      hasOthers={!items.every(isLike)}
      original={original}
      named={named}
      hands={hands}
    />
  );
}

/** The style of words; what they say follows on its tiles when there is time for it. */
const WordsStyle = memo(function WordsStyle(props: {
  id: string;
  name: string;
  text: string;
  style: LetterStyle;
  /** Whether other words have another style. */
  hasOthers: boolean;
  original: Original;
  named: readonly NamedLetterStyle[];
  hands: LetteringHands;
}) {
  const { id, name, text, style, hasOthers, original, named, hands } = props;
  const setStyle = (next: LetterStyle) => hands.change(id, { style: next });
  return (
    <aside className="letter-style" aria-label="Style">
      <h2 className="minor-title">Style of {name}</h2>
      <StyleTiles styles={named} original={original} text={text} chosen={style} onChoose={setStyle} />
      <OwnStyles style={style} named={named} onChoose={setStyle} />
      {hasOthers && (
        <Button size="small" onClick={() => hands.styleAll(style)}>
          Give this style to all words
        </Button>
      )}
      <StyleFields
        style={style}
        original={original}
        onDrag={(next) => hands.write(id, { style: next })}
        onSet={setStyle}
      />
    </aside>
  );
});

/** Before anything is written: a field, and the styles with what is typed into it. */
function FirstWords(props: { original: Original; hands: LetteringHands; onChoose: (id: string) => void }) {
  const { original, hands, onChoose } = props;
  const named = useNamedStyles();
  const [text, setText] = useState('');
  const said = text.trim() === '' ? 'Your words' : text;
  const begin = (style?: LetterStyle) => {
    const item = newWords('title', [], { text: said, ...(style ? { style } : {}) });
    hands.add(item);
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
