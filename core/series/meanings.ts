import type { WordsItem } from '../model/index.ts';
import { type PictureFinder, plainName } from './pictureFinder.ts';

/** What a column of a table says: the picture, its name, its places, what an item says there, or that in short; or nothing that matters. */
export type Meaning = 'picture' | 'name' | 'places' | 'nothing' | `words ${string}` | `short ${string}`;

/** A table as it is understood: what each column means, and whether its first row only says that. */
export interface Understood {
  meanings: Meaning[];
  hasHeads: boolean;
}

const headWords: readonly (readonly [Meaning, readonly string[]])[] = [
  ['picture', ['picture', 'original', 'file', 'file name', 'filename', 'image', 'photo']],
  ['name', ['name', 'called']],
  ['places', ['places', 'place']],
];

/** The meanings that a head can stand for, with the ways in which it can be written. */
const known = (items: readonly WordsItem[]): (readonly [Meaning, readonly string[]])[] => [
  // What an item is called goes before what a column usually is.
  ...items.map(({ id, name }) => [`words ${id}`, [plainName(name)]] as const),
  ...items.map(({ id, name }) => {
    const plain = plainName(name);
    return [
      `short ${id}`,
      [`${plain} short`, `short ${plain}`, `${plain}, short`, `short version of ${plain}`],
    ] as const;
  }),
  ...headWords,
];

/**
 * How a table is probably meant: by its heads where it has some, else by what stands in it, the columns beside that of the pictures being
 * what the items say in their order.
 */
export function understood(
  cells: readonly string[][],
  items: readonly WordsItem[],
  findPicture: PictureFinder,
): Understood {
  const [first = []] = cells;
  const all = known(items);
  const free = new Set(all.map(([meaning]) => meaning));
  const byHeads = first.map((head): Meaning => {
    const plain = plainName(head);
    const [meaning] = all.find(([one, words]) => free.has(one) && words.includes(plain)) ?? [];
    if (meaning) free.delete(meaning);
    return meaning ?? 'nothing';
  });
  const isPicture = (cell: string) => 'id' in findPicture(cell);
  const hasHeads = byHeads.some((meaning) => meaning !== 'nothing') && !first.some(isPicture);
  if (hasHeads) return { meanings: byHeads, hasHeads };
  const pictures = first.map((_, column) => cells.filter((row) => isPicture(row[column] ?? '')).length);
  const most = Math.max(0, ...pictures);
  const at = most > 0 ? pictures.indexOf(most) : -1;
  const left = [...items];
  const meanings = first.map((_, column): Meaning => {
    if (column === at) return 'picture';
    const item = left.shift();
    return item ? `words ${item.id}` : 'nothing';
  });
  return { meanings, hasHeads };
}
