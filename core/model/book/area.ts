import { z } from 'zod';

const areaWords = 'An area has a place and sides in pixels of at most 40,000, and its sides are above 0.';
const at = z.number(areaWords).min(-40_000, areaWords).max(40_000, areaWords);
const side = z.number(areaWords).positive(areaWords).max(40_000, areaWords);
const reasonWords = 'Say in 1 to 60 characters what covers it, or where it is shown.';

/** An area in pixels of the place; it may reach past the frame's edge. `circle` is inscribed in the box. */
export const AreaSchema = z.object({
  left: at,
  top: at,
  width: side,
  height: side,
  shape: z.enum(['rectangle', 'circle']).default('rectangle'),
  /** What covers it, or where only this part is shown: "controls", "running time", "phones". */
  reason: z.string().trim().min(1, reasonWords).max(60, reasonWords),
});
export type Area = z.infer<typeof AreaSchema>;
