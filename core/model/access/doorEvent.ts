import { z } from 'zod';

/** What happens at the door. */
export const DoorEventKindSchema = z.enum([
  'signed in',
  'refused',
  'held up',
  'signed out',
  'sessions ended',
  'account made',
  'joined',
  'left',
  'workspace made',
  'workspace named',
  'review link made',
  'review link withdrawn',
  'invited',
  'invitation withdrawn',
  'role changed',
  'account taken away',
  'password changed',
  'password asked for',
  'second factor set up',
  'second factor dropped',
  'share changed',
  'token made',
  'token withdrawn',
]);
export type DoorEventKind = z.infer<typeof DoorEventKindSchema>;

/** One thing that happened at the door. */
export const DoorEventSchema = z.object({
  id: z.int(),
  at: z.iso.datetime(),
  kind: DoorEventKindSchema,
  /** Who did it, by name and address as they were then; null where nobody was signed in, or somebody did it at the machine itself. */
  who: z.string().nullable(),
  /** Whom or what it was done to, where that is not whoever did it. */
  about: z.string().nullable(),
  /** From which it came, as the network has it; null at the machine itself. */
  address: z.string().nullable(),
});
export type DoorEvent = z.infer<typeof DoorEventSchema>;
