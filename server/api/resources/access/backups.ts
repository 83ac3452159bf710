import { BackupsSchema } from '@inkwell/core/model';
import type { DoorServices } from '../../../services.ts';
import { askBackup, standingOf } from '../../../store/backup/backups.ts';
import { UserError } from '../../../userError.ts';
import { Resource } from '../../contracts/resource.ts';

/** Backups of everything, in all workspaces. */
export function backups({ whole }: DoorServices): Resource {
  const routes = new Resource('/backups', 'Backups');

  routes.get(
    '',
    { does: 'Tells which backups there are, and when more are made.', needs: 'keeper', answers: BackupsSchema },
    () => standingOf(whole),
  );

  routes.post(
    '',
    { does: 'Asks for a backup at once, where backups are made by themselves.', needs: 'keeper', status: 202 },
    async () => {
      if (await askBackup(whole)) return;
      throw new UserError(
        'No backup is made by itself here. Start a worker with INKWELL_BACKUP and a folder, or run ./inkwell backup.',
        409,
      );
    },
  );

  return routes;
}
