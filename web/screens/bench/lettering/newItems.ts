import { shippedStyles } from '@inkwell/core/lettering';
import type { EmblemItem, Item, LetterStyle, Original, ShapeItem, WordsItem } from '@inkwell/core/model';
import { upperFirst } from 'es-toolkit';

const common = {
  originalIds: null,
  notOnPlaces: [],
  onPieces: 'first' as const,
};

type Role = WordsItem['role'];

/** What words of each kind begin with. */
const firstOf: Record<Role, Pick<WordsItem, 'text' | 'wish' | 'wanted'>> = {
  title: { text: 'New title', wish: 'wherever it is calm', wanted: 0.17 },
  line: { text: 'New line', wish: 'under the words before', wanted: 0.07 },
  label: { text: 'New label', wish: 'top left', wanted: 0.055 },
  number: { text: '1', wish: 'top right', wanted: 0.2 },
};

/** The kinds of words there are, in the order in which they are offered. */
export const roles: readonly (readonly [Role, string])[] = [
  ['title', 'Title'],
  ['line', 'Line under the words before'],
  ['label', 'Label'],
  ['number', 'Number'],
];

const firstStyle = (): LetterStyle => {
  const [first] = shippedStyles;
  if (!first) throw new Error('Styles ship with the program.');
  return first.style;
};

/** Words that were not there before, in the style of those before them. */
export function newWords(role: Role, before: readonly Item[], values: Partial<WordsItem> = {}): WordsItem {
  const last = before.findLast((item) => item.kind === 'words');
  const alike = before.filter((item) => item.kind === 'words' && item.role === role).length;
  const name = upperFirst(role);
  return {
    ...common,
    kind: 'words',
    id: crypto.randomUUID(),
    name: alike > 0 ? `${name} ${alike + 1}` : name,
    role,
    short: '',
    notOn: ['profile'],
    style: last?.style ?? firstStyle(),
    ...firstOf[role],
    ...values,
  };
}

export const newEmblem = ({ id, name, sha256, page, width, height, hasAlpha }: Original): EmblemItem => ({
  ...common,
  kind: 'emblem',
  id: crypto.randomUUID(),
  name,
  originalId: id,
  picture: { sha256, page, width, height, hasAlpha },
  notOn: ['profile'],
  wish: 'bottom right',
  wanted: 0.16,
  clearSpace: 0.12,
  plate: null,
});

export const newShape = (form: ShapeItem['form']): ShapeItem => ({
  ...common,
  kind: 'shape',
  id: crypto.randomUUID(),
  name: upperFirst(form),
  form,
  notOn: ['profile'],
  wish: form === 'rule' ? 'under the words before' : 'bottom left',
  wanted: form === 'rule' ? 0.3 : 0.14,
  colour: '#f2c14e',
  opacity: 1,
});
