import { z } from 'zod';

export const ColourSchema = z
  .string()
  .regex(/^#[0-9a-f]{6}$/, 'A colour is written as # and six digits from 0 to 9 and a to f, such as #1f6f66.');

const opaqueBackings = [
  z.object({ kind: z.literal('colour'), colour: ColourSchema }),
  /** An enlarged, blurred copy of the picture itself. */
  z.object({ kind: z.literal('echo') }),
  /** The picture goes on mirrored at its edges. */
  z.object({ kind: z.literal('mirrored edges') }),
] as const;

/** A backing that nothing shows through. */
export const OpaqueBackingSchema = z.discriminatedUnion('kind', opaqueBackings);
export type OpaqueBacking = z.infer<typeof OpaqueBackingSchema>;

/** What shows where the picture does not reach the frame's edge. */
export const BackingSchema = z.discriminatedUnion('kind', [
  ...opaqueBackings,
  z.object({ kind: z.literal('transparent') }),
]);
export type Backing = z.infer<typeof BackingSchema>;
