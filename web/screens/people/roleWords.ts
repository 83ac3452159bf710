import type { Role } from '@inkwell/core/model';

/** What roles are called, and what they mean, as a sentence. */
export const roleWords: Record<Role, { name: string; as: string; may: string }> = {
  owner: {
    name: 'Owner',
    as: 'an owner',
    may: 'An owner changes everything, invites people, and says what they may do.',
  },
  editor: { name: 'Editor', as: 'an editor', may: 'An editor looks at everything and changes it.' },
  viewer: { name: 'Viewer', as: 'a viewer', may: 'A viewer looks at everything and changes nothing.' },
};
