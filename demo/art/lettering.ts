import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import opentype from 'opentype.js';

const require = createRequire(import.meta.url);
const fonts = {
  title: '@fontsource/source-serif-4/files/source-serif-4-latin-700-normal.woff',
  slanted: '@fontsource/source-serif-4/files/source-serif-4-latin-400-italic.woff',
  plain: '@fontsource/public-sans/files/public-sans-latin-600-normal.woff',
} as const;

const opened = new Map<keyof typeof fonts, opentype.Font>();

function font(kind: keyof typeof fonts): opentype.Font {
  let known = opened.get(kind);
  if (!known) {
    const file = readFileSync(require.resolve(fonts[kind]));
    known = opentype.parse(file.buffer.slice(file.byteOffset, file.byteOffset + file.byteLength) as ArrayBuffer);
    opened.set(kind, known);
  }
  return known;
}

/** Words as outlines, so that a drawing needs no font where it is opened. `x` is the middle unless `align` says start. */
export function words(
  text: string,
  kind: keyof typeof fonts,
  x: number,
  y: number,
  size: number,
  fill: string,
  align: 'middle' | 'start' = 'middle',
): string {
  const face = font(kind);
  const left = align === 'middle' ? x - face.getAdvanceWidth(text, size) / 2 : x;
  return `<path d="${pathData(face.getPath(text, left, y, size).commands)}" fill="${fill}"/>`;
}

/** Path data with tenths of a unit. The font library's own writer turns very small numbers into NaN. */
function pathData(commands: opentype.PathCommand[]): string {
  const tenth = (value: number) => (Math.round(value * 10) / 10).toString();
  return commands
    .map((command) => {
      const { type, ...at } = command;
      const points: Partial<Record<'x' | 'y' | 'x1' | 'y1' | 'x2' | 'y2', number>> = at;
      const order = [points.x1, points.y1, points.x2, points.y2, points.x, points.y];
      return (
        type +
        order
          .filter((value) => value !== undefined)
          .map(tenth)
          .join(' ')
      );
    })
    .join('');
}
