import { z } from 'zod';
import { PasswordSchema } from './password.ts';
import { EmailSchema, PersonNameSchema, PersonSchema } from './person.ts';
import { WorkspaceSchema } from './workspace.ts';

/** A code from an authenticator, or one of those for the day when that is lost. */
export const CodeSchema = z
  .string({ error: 'A code is needed.' })
  .trim()
  .min(6, 'A code has six digits, or is one of the longer ones for the day when the authenticator is lost.')
  .max(40, 'A code has six digits, or is one of the longer ones for the day when the authenticator is lost.');

export const SignInSchema = z.object({
  email: EmailSchema,
  password: PasswordSchema,
  /** Asked for where the account has a second factor. */
  code: CodeSchema.optional(),
});
export type SignIn = z.infer<typeof SignInSchema>;

/** Who uses the program, as far as it knows. */
export const DoorSchema = z.object({
  /** Whether accounts are needed here at all: on a machine with one person they are not. */
  hasAccounts: z.boolean(),
  /** Null where nobody is signed in. */
  person: PersonSchema.nullable(),
  /** The workspaces of whoever is here, the one that they came to first before all others; of a stranger none. */
  workspaces: z.array(WorkspaceSchema),
  /** The one that this is asked in; null where whoever asks is not in it. */
  workspaceId: z.uuid().nullable(),
  /** What a page shows with everything that it changes, so that no other page can do so in its name; null without a session. */
  pageToken: z.string().nullable(),
});
export type Door = z.infer<typeof DoorSchema>;

/** What came of signing in: somebody is in, or a code is needed as well. */
export const SignedInSchema = z.discriminatedUnion('state', [
  z.object({ state: z.literal('in'), door: DoorSchema }),
  z.object({ state: z.literal('code needed') }),
]);
export type SignedIn = z.infer<typeof SignedInSchema>;

/** One browser in which somebody is signed in. */
export const SessionSchema = z.object({
  id: z.string(),
  device: z.enum(['computer', 'phone or tablet']),
  /** From which it began, as the network has it. */
  address: z.string(),
  since: z.iso.datetime(),
  /** To the minute. */
  lastUsedAt: z.iso.datetime(),
  isThis: z.boolean(),
});
export type Session = z.infer<typeof SessionSchema>;

export const NewPasswordSchema = z.object({ password: PasswordSchema, wanted: PasswordSchema });
export const ChangeMeSchema = z.object({ name: PersonNameSchema });

/** What sets up a second factor: the secret as text, and as what authenticators read off the screen. */
export const FactorOfferSchema = z.object({ secret: z.string(), uri: z.string() });
export type FactorOffer = z.infer<typeof FactorOfferSchema>;

/** Codes for the day when the authenticator is lost, each good for once: told this once. */
export const RecoveryCodesSchema = z.object({ codes: z.array(z.string()) });
