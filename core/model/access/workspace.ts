import { z } from 'zod';
import { RoleSchema } from './person.ts';

export const WorkspaceNameSchema = z
  .string({ error: 'A name is needed.' })
  .trim()
  .min(1, 'A name needs at least one character.')
  .max(80, 'A name can have at most 80 characters.');
export const NamedWorkspaceSchema = z.object({ name: WorkspaceNameSchema });

/** A workspace, as somebody in it sees it. */
export const WorkspaceSchema = z.object({
  id: z.uuid(),
  name: z.string(),
  /** What whoever asks is in it. */
  role: RoleSchema,
  /** Whether it is the one that was there first: its owners look after the door for all. */
  isFirst: z.boolean(),
});
export type Workspace = z.infer<typeof WorkspaceSchema>;
