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
export type AvoidMark = Extract<Mark, { role: 'avoid' }>;

export const marksLimit = 60;
export const MarksSchema = z.array(MarkSchema).max(marksLimit, `An original can have at most ${marksLimit} marks.`);
