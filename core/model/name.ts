import { z } from 'zod';

export const longestName = 120;

/** A name that a person gives to a project, an original or a finish. */
export const NameSchema = z
  .string({ error: 'A name is needed.' })
  .trim()
  .min(1, 'A name needs at least one character.')
  .max(longestName, `A name can have at most ${longestName} characters.`);
