import type { Role } from '@inkwell/core/model';

/** What roles are called, and what they mean. */
export const roleWords: Record<Role, { name: string; as: string; may: string }> = {
  owner: { name: 'Owner', as: 'an owner', may: 'Changes everything, invites people, and says what they may do.' },
  editor: { name: 'Editor', as: 'an editor', may: 'Looks at everything and changes it.' },
  viewer: { name: 'Viewer', as: 'a viewer', may: 'Looks at everything and changes nothing.' },
};
