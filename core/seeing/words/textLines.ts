import type { Letter } from './letters.ts';

/** Letters that stand in a row. */
export interface TextLine {
  letters: Letter[];
  left: number;
  top: number;
  right: number;
  bottom: number;
  /** The height of its tallest usual letters. */
  height: number;
}

/** Letters of one line: how much they may differ. */
const alike = { height: 2.3, stroke: 2.4, colour: 48 } as const;
/** The next letter is no further away than so many heights. */
const mostGap = 1.1;
/** The next word is no further away than so many heights. */
const mostWordGap = 2;

const right = (one: Letter) => one.left + one.width;
const bottom = (one: Letter) => one.top + one.height;

/** Rows of letters that are alike, stand beside each other and lie on one line. */
export function textLines(letters: readonly Letter[]): TextLine[] {
  const sorted = [...withoutNested(letters)].sort((a, b) => a.left - b.left);
  const rows = rowsOf(sorted);
  return joined(rows.map(lineOf));
}

/** Of parts that lie in each other and are of one kind, the larger one: a letter of which a smaller version was found too. */
function withoutNested(letters: readonly Letter[]): Letter[] {
  const sorted = [...letters].sort((a, b) => a.left - b.left || b.width * b.height - a.width * a.height);
  const dropped = new Set<Letter>();
  for (let at = 0; at < sorted.length; at += 1) {
    const one = sorted[at] as Letter;
    if (dropped.has(one)) continue;
    for (let next = at + 1; next < sorted.length; next += 1) {
      const other = sorted[next] as Letter;
      if (other.left >= right(one)) break;
      if (other.isLight !== one.isLight || dropped.has(other)) continue;
      const wide = Math.min(right(one), right(other)) - other.left;
      const high = Math.min(bottom(one), bottom(other)) - Math.max(one.top, other.top);
      if (high <= 0) continue;
      const shared = wide * high;
      const [mine, its] = [one.width * one.height, other.width * other.height];
      if (shared < 0.7 * Math.min(mine, its) || Math.max(mine, its) > 4 * Math.min(mine, its)) continue;
      if (mine >= its) dropped.add(other);
      else {
        dropped.add(one);
        break;
      }
    }
  }
  return sorted.filter((one) => !dropped.has(one));
}

function areAlike(a: Letter, b: Letter): boolean {
  if (a.isLight !== b.isLight) return false;
  const [low, high] = [Math.min(a.height, b.height), Math.max(a.height, b.height)];
  if (high > alike.height * low) return false;
  const shared = Math.min(bottom(a), bottom(b)) - Math.max(a.top, b.top);
  if (shared < 0.55 * low) return false;
  const [thin, thick] = [Math.min(a.stroke, b.stroke), Math.max(a.stroke, b.stroke)];
  if (thick > alike.stroke * thin + 1.5) return false;
  return a.colour.every((value, channel) => Math.abs(value - (b.colour[channel] as number)) <= alike.colour);
}

/** Letters that are alike and near each other, one after the other, each set from left to right. */
function rowsOf(sorted: readonly Letter[]): Letter[][] {
  const root = sorted.map((_, at) => at);
  const find = (at: number): number => {
    let top = at;
    while (root[top] !== top) top = root[top] as number;
    root[at] = top;
    return top;
  };
  for (let at = 0; at < sorted.length; at += 1) {
    const one = sorted[at] as Letter;
    for (let further = at + 1; further < sorted.length; further += 1) {
      const other = sorted[further] as Letter;
      const gap = other.left - right(one);
      if (gap > mostGap * alike.height * one.height) break;
      const high = Math.max(one.height, other.height);
      if (gap > mostGap * high || gap < -0.35 * high || !areAlike(one, other)) continue;
      root[find(further)] = find(at);
    }
  }
  const rows = new Map<number, Letter[]>();
  for (const [at, letter] of sorted.entries()) rows.set(find(at), [...(rows.get(find(at)) ?? []), letter]);
  return [...rows.values()];
}

function lineOf(letters: Letter[]): TextLine {
  const heights = letters.map(({ height }) => height).sort((a, b) => a - b);
  return {
    letters,
    left: Math.min(...letters.map(({ left }) => left)),
    top: Math.min(...letters.map(({ top }) => top)),
    right: Math.max(...letters.map(right)),
    bottom: Math.max(...letters.map(bottom)),
    height: heights[Math.floor(heights.length * 0.75)] ?? 0,
  };
}

/** Words of one line are one line. */
function joined(lines: TextLine[]): TextLine[] {
  const rest = [...lines].sort((a, b) => a.left - b.left);
  for (let at = 0; at < rest.length; at += 1) {
    for (let other = at + 1; other < rest.length; other += 1) {
      const [one, two] = [rest[at] as TextLine, rest[other] as TextLine];
      if (!areOneLine(one, two)) continue;
      rest.splice(other, 1);
      rest[at] = lineOf([...one.letters, ...two.letters].sort((a, b) => a.left - b.left));
      other = at;
    }
  }
  return rest;
}

function areOneLine(one: TextLine, two: TextLine): boolean {
  const [last, first] = [one.letters.at(-1), two.letters[0]];
  if (!last || !first || one.letters.length + two.letters.length < 3) return false;
  const high = Math.max(one.height, two.height);
  const gap = first.left - right(last);
  return (
    gap <= mostWordGap * high &&
    gap > -0.35 * high &&
    Math.max(one.height, two.height) <= 1.8 * Math.min(one.height, two.height) &&
    areAlike(last, first)
  );
}
