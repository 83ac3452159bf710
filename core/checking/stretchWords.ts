/** How a stretch distorts, in words: "78 % wider", "20 % narrower". */
export function stretchWords(stretch: number): string {
  const percent = Math.round(Math.abs(stretch - 1) * 100);
  return `${Math.max(1, percent)} % ${stretch > 1 ? 'wider' : 'narrower'}`;
}
