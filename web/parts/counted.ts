/** A count with what is counted: `1 file`, `3 files`. */
export const counted = (count: number, one: string): string => `${count} ${one}${count === 1 ? '' : 's'}`;
