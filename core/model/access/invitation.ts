import { z } from 'zod';
import { PasswordSchema } from './password.ts';
import { EmailSchema, PersonNameSchema, RoleSchema } from './person.ts';

export const NewInvitationSchema = z.object({ email: EmailSchema, role: RoleSchema });
export type NewInvitation = z.infer<typeof NewInvitationSchema>;

/** An invitation that nobody has taken yet. */
export const InvitationSchema = z.object({
  id: z.uuid(),
  email: z.string(),
  role: RoleSchema,
  /** By name; null where whoever invited has no account any more, or did so at the machine itself. */
  invitedBy: z.string().nullable(),
  createdAt: z.iso.datetime(),
  endsAt: z.iso.datetime(),
});
export type Invitation = z.infer<typeof InvitationSchema>;

/** An invitation that was just made, with its link: it is told this once. */
export const MadeInvitationSchema = z.object({ invitation: InvitationSchema, link: z.string() });
export type MadeInvitation = z.infer<typeof MadeInvitationSchema>;

/** What the link of a mail says behind its #. */
export const LinkSecretSchema = z.string().min(20, 'This link is cut off. Copy it whole.').max(200);

/** What an invitation is for. Of the first account the person says the address. */
export const OpenInvitationSchema = z.object({
  email: z.string().nullable(),
  role: RoleSchema,
  workspace: z.string(),
});
export type OpenInvitation = z.infer<typeof OpenInvitationSchema>;

export const TakenInvitationSchema = z.object({
  secret: LinkSecretSchema,
  name: PersonNameSchema,
  email: EmailSchema.optional(),
  password: PasswordSchema,
});
export type TakenInvitation = z.infer<typeof TakenInvitationSchema>;

/** Whoever has an account already joins with it. */
export const JoinSchema = z.object({ secret: LinkSecretSchema });

export const ForgottenSchema = z.object({ email: EmailSchema });
export const ResetSchema = z.object({ secret: LinkSecretSchema, password: PasswordSchema });

/** A mail that the program has written. Where no mail server is named it stays here to be read. */
export const MailSchema = z.object({
  id: z.uuid(),
  to: z.string(),
  subject: z.string(),
  /** Null where it was sent: what it said is not kept. */
  text: z.string().nullable(),
  createdAt: z.iso.datetime(),
  state: z.enum(['kept', 'waiting', 'sent', 'given up']),
  said: z.string().nullable(),
});
export type Mail = z.infer<typeof MailSchema>;
