import { z } from 'zod';

/** A name that a person gives to a project, an original or a finish. */
export const NameSchema = z
  .string({ error: 'A name is needed.' })
  .trim()
  .min(1, 'A name needs at least one character.')
  .max(120, 'A name can have at most 120 characters.');
