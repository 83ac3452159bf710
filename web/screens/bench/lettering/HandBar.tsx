import { outlineRound, plateUnder } from '@inkwell/core/lettering';
import { type Hand, type Item, noHand, type Original, type SetOff } from '@inkwell/core/model';
import { Button, Input, Select } from 'antd';
import { useState } from 'react';
import { ColourField } from '../../../parts/fields/ColourField.tsx';

const waysToSetOff = [
  { value: 'as styled' as const, label: 'As in its style' },
  { value: 'plate' as const, label: 'On a plate' },
  { value: 'outline' as const, label: 'Outlined' },
  { value: 'none' as const, label: 'Not set off' },
];

/** @param colour of the letters */
function setOffBy(kind: SetOff['kind'] | 'as styled', colour: string): SetOff | null {
  if (kind === 'plate') return plateUnder(colour);
  if (kind === 'outline') return outlineRound(colour);
  return kind === 'none' ? { kind } : null;
}

/** What a hand has set for one item in one frame, and the ways back. */
export function HandBar(props: {
  item: Item;
  hand: Hand | undefined;
  original: Original;
  onHand: (change: Partial<Hand>) => void;
  onClose: () => void;
}) {
  const { item, hand = noHand, original, onHand, onClose } = props;
  const [draft, setDraft] = useState<string | null>(null);
  const said = item.kind === 'words' ? (hand.text ?? item.text) : '';
  const take = () => {
    setDraft(null);
    if (draft === null || draft.trim() === '' || item.kind !== 'words') return;
    onHand({ text: draft === item.text ? null : draft });
  };
  return (
    <section className="hand-bar" aria-label={`${item.name} in this frame`}>
      <span>
        <strong>{item.name}</strong> <span className="quiet small">{hand.stand ? 'moved by hand' : 'laid out'}</span>
      </span>
      {item.kind === 'words' && (
        <>
          <Input.TextArea
            size="small"
            autoSize={{ minRows: 1, maxRows: 3 }}
            aria-label={`What ${item.name} says in this frame`}
            title="Only in this frame; Enter breaks the line"
            value={draft ?? said}
            onChange={({ target }) => setDraft(target.value)}
            onBlur={take}
          />
          <ColourField
            label={`Colour of ${item.name} in this frame`}
            value={hand.colour ?? item.style.colour}
            original={original}
            onChange={(colour) => onHand({ colour: colour === item.style.colour ? null : colour })}
          />
          <Select<SetOff['kind'] | 'as styled'>
            size="small"
            aria-label={`What sets ${item.name} off in this frame`}
            value={hand.setOff?.kind ?? 'as styled'}
            options={waysToSetOff}
            onChange={(kind) => onHand({ setOff: setOffBy(kind, hand.colour ?? item.style.colour) })}
          />
        </>
      )}
      <span className="row wrap">
        {hand.stand && (
          <Button size="small" onClick={() => onHand({ stand: null })}>
            Lay it out again
          </Button>
        )}
        {(hand.text !== null || hand.colour !== null || hand.setOff !== null) && (
          <Button size="small" onClick={() => onHand({ text: null, colour: null, setOff: null })}>
            As in all frames
          </Button>
        )}
        <Button
          size="small"
          onClick={() => {
            onHand({ isOff: true });
            onClose();
          }}
        >
          Leave it out here
        </Button>
      </span>
    </section>
  );
}
