import { z } from 'zod';

/** What somebody may do in a workspace: everything; look and change; only look. */
export const roles = ['owner', 'editor', 'viewer'] as const;
export const RoleSchema = z.enum(roles);
export type Role = z.infer<typeof RoleSchema>;

/** Whether somebody with a role may do what takes another. */
export const mayAs = (role: Role, needed: Role): boolean => roles.indexOf(role) <= roles.indexOf(needed);

/** An e-mail address; it is one person's, however it is written. */
export const EmailSchema = z
  .string({ error: 'An e-mail address is needed.' })
  .trim()
  .toLowerCase()
  .max(254, 'An e-mail address can have at most 254 characters.')
  .pipe(z.email('This is no e-mail address. One looks like name@studio.example.'));

export const PersonNameSchema = z
  .string({ error: 'A name is needed.' })
  .trim()
  .min(1, 'A name needs at least one character.')
  .max(80, 'A name can have at most 80 characters.');

/** Somebody with an account. */
export const PersonSchema = z.object({
  id: z.uuid(),
  name: z.string(),
  email: z.string(),
  hasSecondFactor: z.boolean(),
  createdAt: z.iso.datetime(),
});
export type Person = z.infer<typeof PersonSchema>;

/** Somebody in a workspace. */
export const MemberSchema = PersonSchema.extend({ role: RoleSchema });
export type Member = z.infer<typeof MemberSchema>;
