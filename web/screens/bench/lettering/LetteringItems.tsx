import { upperFirst } from 'es-toolkit';
import './Lettering.css';
import { ArrowDownOutlined, ArrowUpOutlined, DeleteOutlined, PlusOutlined } from '@ant-design/icons';
import type { Item, Lettering, Original, ShapeItem } from '@inkwell/core/model';
import { wordsOn } from '@inkwell/core/series';
import { Button, Dropdown } from 'antd';
import { memo } from 'react';
import { useStore } from 'zustand';
import { useOriginals } from '../../../api/library/originals.ts';
import { pageFonts } from '../../../fonts/pageFonts.ts';
import { useFontBook } from '../../../fonts/useFontBook.ts';
import { DrawnTexts } from './DrawnTexts.tsx';
import { ItemFields } from './ItemFields.tsx';
import { newEmblem, newShape, newWords, roles } from './newItems.ts';
import { chosenItem, type LetteringHands, useLettering, useLetteringHands } from './useLettering.ts';

const forms: readonly ShapeItem['form'][] = ['plate', 'bar', 'rule', 'disc', 'arrow'];

/** What an item says on a picture, in one line. */
const excerpt = (item: Item, originalId: string) =>
  item.kind === 'words' ? wordsOn(item, originalId).text.replaceAll('\n', ' / ') || 'left out here' : item.name;
const kindWords: Record<Item['kind'], string> = { words: 'Words', emblem: 'Emblem', shape: 'Shape' };

/** The items of a project under its original, the most important first, and the fields of the chosen one. */
export function LetteringItems(props: {
  projectId: string;
  original: Original;
  chosenId: string | null;
  onChoose: (id: string) => void;
  /** Another original stands in the place of the one that is shown. */
  onExchanged: (originalId: string) => void;
}) {
  const { projectId, original, chosenId, onChoose, onExchanged } = props;
  const items = useLettering();
  const hands = useLetteringHands(projectId);
  const chosen = chosenItem(items, chosenId);
  return (
    <section className="letter-items" aria-label="Words and emblems">
      <AddItems hands={hands} onChoose={onChoose} />
      <FontsNote items={items} />
      <ol className="letter-list" aria-label="The most important first">
        {items.map((item, at) => (
          <ItemRow
            key={item.id}
            id={item.id}
            name={item.name}
            kind={item.kind === 'words' ? item.name : kindWords[item.kind]}
            says={excerpt(item, original.id)}
            isFirst={at === 0}
            isLast={at === items.length - 1}
            isChosen={item.id === chosen?.id}
            hands={hands}
            onChoose={onChoose}
          />
        ))}
      </ol>
      {chosen && <ItemFields key={chosen.id} item={chosen} originalId={original.id} hands={hands} />}
      <DrawnTexts projectId={projectId} original={original} onExchanged={onExchanged} />
    </section>
  );
}

/** What can be added; who types does not wait for it. */
const AddItems = memo(function AddItems({
  hands,
  onChoose,
}: {
  hands: LetteringHands;
  onChoose: (id: string) => void;
}) {
  const { data: originals = [] } = useOriginals();
  const add = (item: Item) => {
    hands.add(item);
    onChoose(item.id);
  };
  return (
    <div className="row spread">
      <h2 className="minor-title">Words and emblems</h2>
      <span className="row">
        <Dropdown
          trigger={['click']}
          menu={{
            items: roles.map(([role, label]) => ({ key: role, label })),
            onClick: ({ key }) => {
              const chosenRole = roles.find(([role]) => role === key);
              if (chosenRole) add(newWords(chosenRole[0], hands.items()));
            },
          }}
        >
          <Button size="small" icon={<PlusOutlined />} aria-label="Add words">
            Words
          </Button>
        </Dropdown>
        <Dropdown
          trigger={['click']}
          menu={{
            items: originals.map(({ id, name }) => ({ key: id, label: name })),
            onClick: ({ key }) => {
              const original = originals.find(({ id }) => id === key);
              if (original) add(newEmblem(original));
            },
          }}
        >
          <Button size="small" icon={<PlusOutlined />} aria-label="Add an emblem">
            Emblem
          </Button>
        </Dropdown>
        <Dropdown
          trigger={['click']}
          menu={{
            items: forms.map((form) => ({ key: form, label: upperFirst(form) })),
            onClick: ({ key }) => {
              const form = forms.find((one) => one === key);
              if (form) add(newShape(form));
            },
          }}
        >
          <Button size="small" icon={<PlusOutlined />} aria-label="Add a shape">
            Shape
          </Button>
        </Dropdown>
      </span>
    </div>
  );
});

/** One item of the list, and how it is moved in it. */
const ItemRow = memo(function ItemRow(props: {
  id: string;
  name: string;
  kind: string;
  says: string;
  isFirst: boolean;
  isLast: boolean;
  isChosen: boolean;
  hands: LetteringHands;
  onChoose: (id: string) => void;
}) {
  const { id, name, kind, says, isFirst, isLast, isChosen, hands, onChoose } = props;
  return (
    <li data-chosen={isChosen}>
      <button type="button" className="plain-button letter-name" aria-pressed={isChosen} onClick={() => onChoose(id)}>
        <span className="quiet small">{kind}</span>
        <span className="letter-excerpt">{says}</span>
      </button>
      <Button
        size="small"
        type="text"
        icon={<ArrowUpOutlined />}
        disabled={isFirst}
        aria-label={`${name} is more important`}
        title="More important"
        onClick={() => hands.shift(id, -1)}
      />
      <Button
        size="small"
        type="text"
        icon={<ArrowDownOutlined />}
        disabled={isLast}
        aria-label={`${name} is less important`}
        title="Less important"
        onClick={() => hands.shift(id, 1)}
      />
      <Button
        size="small"
        type="text"
        icon={<DeleteOutlined />}
        aria-label={`Remove ${name}`}
        title="Remove it from all frames"
        onClick={() => hands.remove(id)}
      />
    </li>
  );
});

/** Says that the wall waits for fonts: what was saved is shown meanwhile, and what is typed follows when they are there. */
function FontsNote({ items }: { items: Lettering }) {
  const book = useFontBook(items);
  const failed = useStore(pageFonts, (state) => state.failed);
  if (items.length === 0 || book) return null;
  return (
    <p className="quiet small" aria-live="polite">
      {failed ? 'The fonts could not be loaded. They are asked for again in a moment.' : 'Loading the fonts …'}
    </p>
  );
}
