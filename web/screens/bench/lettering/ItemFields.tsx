import { setWords } from '@inkwell/core/lettering';
import {
  type Item,
  itemRanges,
  type PictureWords,
  PurposeSchema,
  type Wish,
  WishSchema,
  type WordsItem,
} from '@inkwell/core/model';
import { asOnAll } from '@inkwell/core/series';
import { Button, Input, Select } from 'antd';
import { upperFirst } from 'es-toolkit';
import equal from 'fast-deep-equal';
import { memo, useState } from 'react';
import { useStore } from 'zustand';
import { usePlaces } from '../../../api/library/specBook.ts';
import { pageFonts } from '../../../fonts/pageFonts.ts';
import { ChoiceField } from '../../../parts/fields/ChoiceField.tsx';
import { useOpenProject } from '../../ProjectLayout.tsx';
import { TuneField } from '../finish/TuneField.tsx';
import type { LetteringHands } from './useLettering.ts';

const wishes = WishSchema.options.map((wish): readonly [Wish, string] => [wish, upperFirst(wish)]);
const pieces: readonly (readonly [Item['onPieces'], string])[] = [
  ['first', 'The first piece'],
  ['last', 'The last piece'],
  ['each', 'Every piece'],
  ['across', 'Across all'],
];
const purposes = PurposeSchema.options.map((purpose) => ({ value: purpose, label: upperFirst(purpose) }));

/** What an item says, on all pictures or on the one that is worked at, where it would like to stand, how large, and where it is shown. */
export function ItemFields({ item, originalId, hands }: { item: Item; originalId: string; hands: LetteringHands }) {
  const { id, name, kind, wish, wanted, notOn, notOnPlaces, originalIds, onPieces } = item;
  return (
    <div className="letter-fields">
      {item.kind === 'words' && <SaidFields key={originalId} item={item} originalId={originalId} hands={hands} />}
      <FallbackNote item={item} />
      <StandFields item={{ id, name, kind, wish, wanted, notOn, notOnPlaces, originalIds, onPieces }} hands={hands} />
    </div>
  );
}

function SaidFields({ item, originalId, hands }: { item: WordsItem; originalId: string; hands: LetteringHands }) {
  const own = item.onPictures?.[originalId];
  const isAlone = useOpenProject().originals.length < 2;
  const say = (words: PictureWords) =>
    hands.write(item.id, { onPictures: { ...item.onPictures, [originalId]: words } });
  const { text, short } = own ?? item;
  // Words that say nothing are no item: while the field is empty, the last ones stay on the wall.
  const [empty, setEmpty] = useState<string | null>(null);
  const where = own ? ' on this picture' : '';
  return (
    <>
      <div className="letter-field">
        <span>{own ? 'On this picture' : 'What it says'}</span>
        <Input.TextArea
          size="small"
          aria-label={`What ${item.name} says${where}`}
          autoSize={{ minRows: 1, maxRows: 4 }}
          maxLength={600}
          placeholder={own ? 'Left out here' : ''}
          value={empty ?? text}
          onChange={({ target: { value } }) => {
            if (own) {
              say({ ...own, text: value });
              return;
            }
            const isEmpty = value.trim() === '';
            setEmpty(isEmpty ? value : null);
            if (!isEmpty) hands.write(item.id, { text: value });
          }}
          onBlur={() => setEmpty(null)}
        />
      </div>
      <div className="letter-field">
        <span>Short version</span>
        <Input
          size="small"
          aria-label={`Short version of ${item.name}${where}`}
          maxLength={600}
          placeholder="For frames where the long one cannot be read"
          value={short}
          onChange={({ target }) =>
            own ? say({ ...own, short: target.value }) : hands.write(item.id, { short: target.value })
          }
        />
      </div>
      {own ? (
        <Button
          size="small"
          className="letter-own"
          onClick={() => hands.setAll(asOnAll(hands.items(), item.id, originalId))}
        >
          Say here what the other pictures say
        </Button>
      ) : (
        !isAlone && (
          <Button size="small" className="letter-own" onClick={() => say({ text, short })}>
            Say something else on this picture
          </Button>
        )
      )}
    </>
  );
}

type Standing = Pick<
  Item,
  'id' | 'name' | 'kind' | 'wish' | 'wanted' | 'notOn' | 'notOnPlaces' | 'originalIds' | 'onPieces'
>;

/** Where an item would like to stand, how large, and where it is shown. What it says is no part of that: who types does not wait for these fields. */
const StandFields = memo(function StandFields({ item, hands }: { item: Standing; hands: LetteringHands }) {
  const project = useOpenProject();
  const book = usePlaces(project);
  // A place that no frame goes to any more can still be taken off the list.
  const placeIds = new Set([...project.frames.map(({ placeId }) => placeId), ...item.notOnPlaces]);
  const places = [...placeIds].map((id) => {
    const at = book.get(id);
    return { value: id, label: at ? `${at.network.name} ${at.place.name}` : id };
  });
  const largest = item.kind === 'words' ? 0.5 : itemRanges.wanted.most;
  return (
    <>
      <ChoiceField
        label="Where"
        name={`Where ${item.name} stands`}
        value={item.wish}
        choices={wishes}
        disabled={false}
        onChoose={(wish) => hands.change(item.id, { wish })}
      />
      <TuneField
        label={item.kind === 'words' ? 'Letter height' : 'Longer side'}
        hint="How large it would like to be, as a share of the frame’s shorter side. It is smaller where there is less room."
        value={item.wanted}
        least={itemRanges.wanted.least}
        most={largest}
        step={0.005}
        times={100}
        unit="%"
        onDrag={(wanted) => wanted !== null && hands.write(item.id, { wanted })}
        onSet={(wanted) => hands.change(item.id, { wanted })}
      />
      <div className="letter-field">
        <span>Left out on</span>
        <Select<string[]>
          size="small"
          mode="multiple"
          aria-label="Left out on"
          placeholder="Nowhere"
          optionFilterProp="label"
          value={[...item.notOn, ...item.notOnPlaces]}
          options={[
            { label: 'Everything of a kind', options: purposes },
            { label: 'Places of this project', options: places },
          ]}
          onChange={(chosen) =>
            hands.change(item.id, {
              notOn: PurposeSchema.options.filter((purpose) => chosen.includes(purpose)),
              notOnPlaces: chosen.filter((one) => one.includes('/')),
            })
          }
        />
      </div>
      <div className="letter-field">
        <span>Pictures</span>
        <Select<string[]>
          size="small"
          mode="multiple"
          aria-label="Pictures it is shown on"
          placeholder="All of them"
          value={item.originalIds ?? []}
          options={project.originals.map(({ id, name }) => ({ value: id, label: name }))}
          onChange={(ids) => hands.change(item.id, { originalIds: ids.length > 0 ? ids : null })}
        />
      </div>
      <ChoiceField
        label="Of a cut picture"
        value={item.onPieces}
        choices={pieces}
        disabled={false}
        onChoose={(onPieces) => hands.change(item.id, { onPieces })}
      />
    </>
  );
}, equal);

/** Says in which fonts letters are set that the chosen one lacks. */
function FallbackNote({ item }: { item: Item }) {
  const book = useStore(pageFonts, (state) => state.book);
  if (!book || item.kind !== 'words') return null;
  const { fallbacks } = setWords(item.text, item.style, book);
  const chosen = book.families.find(({ id }) => id === item.style.family)?.name;
  if (fallbacks.length === 0) return null;
  const others = fallbacks.join(' and ');
  return (
    <p className="quiet small">
      {chosen
        ? `${chosen} lacks some of these letters: they are set in ${others}.`
        : `The font of this style is not here: it is set in ${others}. Add that font, or choose another.`}
    </p>
  );
}
