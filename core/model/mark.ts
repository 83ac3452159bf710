import { z } from 'zod';

/** A rectangle on an original, in original pixels; fractions are allowed. */
export const RegionSchema = z.object({
  left: z.number(),
  top: z.number(),
  width: z.number().positive(),
  height: z.number().positive(),
});
export type Region = z.infer<typeof RegionSchema>;

export const MarkKindSchema = z.enum(['face', 'subject', 'text']);
export type MarkKind = z.infer<typeof MarkKindSchema>;
export const LookSchema = z.enum(['left', 'right']);

export const MarkNameSchema = z
  .string()
  .trim()
  .min(1, 'A mark needs a name.')
  .max(60, 'A name can have at most 60 characters.');

const common = RegionSchema.extend({
  id: z.uuid(),
  name: MarkNameSchema,
  shape: z.enum(['rectangle', 'ellipse']).default('rectangle'),
});

/** A region on an original that must be in every frame (keep), or should stay out (avoid). */
export const MarkSchema = z.discriminatedUnion('role', [
  common.extend({
    role: z.literal('keep'),
    priority: z.enum(['must', 'should']).default('must'),
    kind: MarkKindSchema.nullable().default(null),
    /** Where a face looks, as seen: frames leave room on that side. */
    look: LookSchema.nullable().default(null),
  }),
  common.extend({ role: z.literal('avoid') }),
]);
export type Mark = z.infer<typeof MarkSchema>;
export type KeepMark = Extract<Mark, { role: 'keep' }>;
/** Whether a mark must be in every frame. */
export const isMust = (mark: Mark): mark is KeepMark => mark.role === 'keep' && mark.priority === 'must';
/** A mark that frames are composed from: one of a person's own, or a proposal that nobody has confirmed. */
export type MarkToCompose = Mark & {
  /** How sure the program is of a proposal. */
  proposed?: 'sure' | 'likely';
};
export type AvoidMark = Extract<Mark, { role: 'avoid' }>;

/** A proposal that a person has decided on: it was kept as a mark, or dismissed, and is not proposed again. */
export const DecidedSchema = z.discriminatedUnion('kind', [
  RegionSchema.extend({ kind: z.enum(['face', 'person', 'animal', 'thing', 'words', 'stands out']) }),
  z.object({ kind: z.literal('tilt') }),
  z.object({ kind: z.literal('body') }),
]);
export type Decided = z.infer<typeof DecidedSchema>;
const decidedLimit = 400;
export const DecisionsSchema = z
  .array(DecidedSchema)
  .max(decidedLimit, `At most ${decidedLimit} proposals of a picture can be decided on.`);

export const marksLimit = 60;
export const MarksSchema = z.array(MarkSchema).max(marksLimit, `An original can have at most ${marksLimit} marks.`);
