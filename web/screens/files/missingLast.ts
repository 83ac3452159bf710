/**
 * Compares rows of a table by a number that some do not have yet: those come last whichever way the column is sorted. The
 * table turns a comparison round itself where it sorts downwards.
 */
export const missingLast =
  <Row>(value: (row: Row) => number | null) =>
  (a: Row, b: Row, order?: 'ascend' | 'descend' | null): number => {
    const missing = order === 'descend' ? -Number.MAX_VALUE : Number.MAX_VALUE;
    const [first, second] = [value(a) ?? missing, value(b) ?? missing];
    return first === second ? 0 : first < second ? -1 : 1;
  };
