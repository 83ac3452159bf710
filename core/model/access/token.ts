import { z } from 'zod';

const namedSchema = z
  .string({ error: 'A token needs a name.' })
  .trim()
  .min(1, 'A token needs a name, such as the program that uses it.')
  .max(60, 'The name of a token can have at most 60 characters.');

/** What a program may do that has a token: only look, or look and change. */
export const TokenScopeSchema = z.enum(['look', 'change']);
export type TokenScope = z.infer<typeof TokenScopeSchema>;

export const NewTokenSchema = z.object({
  name: namedSchema,
  may: TokenScopeSchema,
  /** For so many days; null for ever. */
  days: z
    .int()
    .min(1, 'A token holds for at least a day.')
    .max(3660, 'A token holds for at most ten years.')
    .nullable(),
});
export type NewToken = z.infer<typeof NewTokenSchema>;

/** What lets a program ask the API. It is only known to whoever made it: here is how it begins. */
export const TokenSchema = z.object({
  id: z.uuid(),
  name: z.string(),
  may: TokenScopeSchema,
  beginning: z.string(),
  createdAt: z.iso.datetime(),
  endsAt: z.iso.datetime().nullable(),
  /** To the minute. */
  lastUsedAt: z.iso.datetime().nullable(),
});
export type Token = z.infer<typeof TokenSchema>;

/** A token that was just made, with what it says: it is told this once. */
export const MadeTokenSchema = z.object({ token: TokenSchema, secret: z.string() });
export type MadeToken = z.infer<typeof MadeTokenSchema>;
