/** Letters of five by seven squares, row by row. */
const glyphs: Record<string, string> = {
  A: '01110 10001 10001 11111 10001 10001 10001',
  D: '11110 10001 10001 10001 10001 10001 11110',
  E: '11111 10000 10000 11110 10000 10000 11111',
  H: '10001 10001 10001 11111 10001 10001 10001',
  I: '01110 00100 00100 00100 00100 00100 01110',
  K: '10001 10010 10100 11000 10100 10010 10001',
  L: '10000 10000 10000 10000 10000 10000 11111',
  N: '10001 11001 10101 10101 10011 10001 10001',
  R: '11110 10001 10001 11110 10100 10010 10001',
  S: '01111 10000 10000 01110 00001 00001 11110',
  T: '11111 00100 00100 00100 00100 00100 00100',
  U: '10001 10001 10001 10001 10001 10001 01110',
  W: '10001 10001 10001 10101 10101 11011 10001',
};
export const letterNames = Object.keys(glyphs);

/** Says of a point whether it is ink of a line of letters that begins at 0, 0 and is so high; a space is a space. */
export function inkOf(text: string, height: number): (x: number, y: number) => boolean {
  const square = height / 7;
  const rows = [...text].map((letter) => glyphs[letter]?.split(' '));
  return (x, y) => {
    const [column, row] = [Math.floor(x / square), Math.floor(y / square)];
    if (column < 0 || row < 0 || row > 6) return false;
    return rows[Math.floor(column / 6)]?.[row]?.[column % 6] === '1';
  };
}

/** How wide such a line is. */
export const inkWidth = (text: string, height: number): number => ((text.length * 6 - 1) * height) / 7;
