import type { DoorServices } from '../../../services.ts';
import type { Access } from '../../../tasks/access/access.ts';
import { UserError } from '../../../userError.ts';

/** What accounts work with. @throws UserError where there are none */
export function accessOf({ access }: Pick<DoorServices, 'access'>): Access {
  if (access) return access;
  throw new UserError(
    'There are no accounts here: the program is reached from its own machine alone. INKWELL_HOST or INKWELL_ACCOUNTS=on changes that.',
    404,
  );
}
