import type { Proposal } from '../model/index.ts';

const numbers = [
  'no',
  'one',
  'two',
  'three',
  'four',
  'five',
  'six',
  'seven',
  'eight',
  'nine',
  'ten',
  'eleven',
  'twelve',
];
const unusual: Record<string, string> = { person: 'people', sheep: 'sheep', scissors: 'scissors' };

function plural(name: string): string {
  if (unusual[name]) return unusual[name];
  if (/(s|x|ch|sh)$/.test(name)) return `${name}es`;
  return /[^aeiou]y$/.test(name) ? `${name.slice(0, -1)}ies` : `${name}s`;
}

/** What proposals are called together: "two faces, one dog, words". */
export function seenWords(proposals: readonly Pick<Proposal, 'name'>[]): string {
  const counts = new Map<string, number>();
  for (const { name } of proposals) counts.set(name, (counts.get(name) ?? 0) + 1);
  return [...counts]
    .map(([name, count]) => {
      // Neither can be counted: a block of words is as good as a line.
      if (name === 'words' || name === 'what stands out') return name;
      return `${numbers[count] ?? count} ${count === 1 ? name : plural(name)}`;
    })
    .join(', ');
}
