import { upperFirst } from 'es-toolkit';
import './Lettering.css';
import { ArrowDownOutlined, ArrowUpOutlined, DeleteOutlined, PlusOutlined } from '@ant-design/icons';
import type { Item, Lettering, ShapeItem } from '@inkwell/core/model';
import { Button, Dropdown } from 'antd';
import { useStore } from 'zustand';
import { useOriginals } from '../../../api/originals.ts';
import { pageFonts } from '../../../fonts/pageFonts.ts';
import { useFontBook } from '../../../fonts/useFontBook.ts';
import { ItemFields } from './ItemFields.tsx';
import { newEmblem, newShape, newWords, roles } from './newItems.ts';
import { chosenItem, useLettering } from './useLettering.ts';

const forms: readonly ShapeItem['form'][] = ['plate', 'bar', 'rule', 'disc', 'arrow'];

const excerpt = (item: Item) => (item.kind === 'words' ? item.text.replaceAll('\n', ' / ') : item.name);
const kindWords: Record<Item['kind'], string> = { words: 'Words', emblem: 'Emblem', shape: 'Shape' };

/** The items of a project under its original, the most important first, and the fields of the chosen one. */
export function LetteringItems(props: { projectId: string; chosenId: string | null; onChoose: (id: string) => void }) {
  const { projectId, chosenId, onChoose } = props;
  const lettering = useLettering(projectId);
  const { items } = lettering;
  const chosen = chosenItem(items, chosenId);
  const { data: originals = [] } = useOriginals();
  const add = (item: Item) => {
    lettering.add(item);
    onChoose(item.id);
  };
  return (
    <section className="letter-items" aria-label="Words and emblems">
      <div className="row spread">
        <h2 className="minor-title">Words and emblems</h2>
        <span className="row">
          <Dropdown
            trigger={['click']}
            menu={{
              items: roles.map(([role, label]) => ({ key: role, label })),
              onClick: ({ key }) => {
                const chosenRole = roles.find(([role]) => role === key);
                if (chosenRole) add(newWords(chosenRole[0], items));
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
      <FontsNote items={items} />
      <ol className="letter-list" aria-label="The most important first">
        {items.map((item, at) => (
          <li key={item.id} data-chosen={item.id === chosen?.id}>
            <button
              type="button"
              className="plain-button letter-name"
              aria-pressed={item.id === chosen?.id}
              onClick={() => onChoose(item.id)}
            >
              <span className="quiet small">{item.kind === 'words' ? item.name : kindWords[item.kind]}</span>
              <span className="letter-excerpt">{excerpt(item)}</span>
            </button>
            <Button
              size="small"
              type="text"
              icon={<ArrowUpOutlined />}
              disabled={at === 0}
              aria-label={`${item.name} is more important`}
              title="More important"
              onClick={() => lettering.shift(item.id, -1)}
            />
            <Button
              size="small"
              type="text"
              icon={<ArrowDownOutlined />}
              disabled={at === items.length - 1}
              aria-label={`${item.name} is less important`}
              title="Less important"
              onClick={() => lettering.shift(item.id, 1)}
            />
            <Button
              size="small"
              type="text"
              icon={<DeleteOutlined />}
              aria-label={`Remove ${item.name}`}
              title="Remove it from all frames"
              onClick={() => lettering.remove(item.id)}
            />
          </li>
        ))}
      </ol>
      {chosen && <ItemFields key={chosen.id} item={chosen} lettering={lettering} />}
    </section>
  );
}

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
