import { z } from 'zod';

/** What a frame may take in all, so that it can be rendered in the memory there is: of all its pieces together. */
export const frameBounds = { pixels: 36_000_000, pieces: 100 } as const;
const boundWords = `A frame has at most ${frameBounds.pieces} pieces`;
const counts = z.int(`${boundWords}.`).min(1).max(frameBounds.pieces, `${boundWords}.`);
const gap = z.number().min(0).max(0.2);

/** Whether a list names each of 0 to `count - 1` once. */
const namesEach = (order: readonly number[], count: number) =>
  order.length === count && new Set(order).size === count && order.every((index) => index < count);

/** How several pieces of one picture belong together. Gaps are shares of a tile's width. */
export const GroupSchema = z.discriminatedUnion('kind', [
  z
    .object({ kind: z.literal('panels'), min: z.int().min(2), max: counts })
    .refine(({ min, max }) => min <= max, 'There have to be at least as many panels at most as at least.'),
  z
    .object({
      kind: z.literal('block'),
      columns: counts,
      rows: counts,
      gap,
      /** Reading index (row by row, from 0) of the tile uploaded first, second, … */
      postingOrder: z.array(z.int().min(0)).max(frameBounds.pieces, `${boundWords}.`),
    })
    .refine(({ columns, rows }) => columns * rows <= frameBounds.pieces, `${boundWords}.`)
    .refine(
      ({ columns, rows, postingOrder }) => namesEach(postingOrder, columns * rows),
      'The posting order has to name every tile once, from 0 to one less than there are.',
    ),
  z
    .object({
      kind: z.literal('quilt'),
      columns: counts,
      minRows: counts,
      maxRows: counts,
      gap,
      posting: z.enum(['first tile first', 'last tile first']),
    })
    .refine(({ minRows, maxRows }) => minRows <= maxRows, 'There have to be at least as many rows at most as at least.')
    .refine(({ columns, maxRows }) => columns * maxRows <= frameBounds.pieces, `${boundWords}.`),
]);
export type Group = z.infer<typeof GroupSchema>;
