import { resolve } from 'node:path';
import type { BackupPlan } from '@inkwell/core/model';
import { z } from 'zod';
import { read, within } from './settings.ts';

const BackupSettingsSchema = z.object({
  /** The folder into which a worker makes backups by itself; without it another worker may; `off` where none does any more. */
  INKWELL_BACKUP: z.string().min(1).optional(),
  INKWELL_BACKUP_HOURS: z.coerce
    .number('INKWELL_BACKUP_HOURS is a number of hours.')
    .min(0.1, 'INKWELL_BACKUP_HOURS is at least 0.1.')
    .max(8760, 'INKWELL_BACKUP_HOURS is at most 8,760, a year.')
    .default(24),
  /** So many are kept; older ones are removed once a newer one is whole. */
  INKWELL_BACKUP_KEEP: within(1, 1000, 'INKWELL_BACKUP_KEEP').default(7),
  /** People are warned when the last good one is older; by default twice the hours between two. */
  INKWELL_BACKUP_WARN: z.coerce
    .number('INKWELL_BACKUP_WARN is a number of hours.')
    .min(0.1, 'INKWELL_BACKUP_WARN is at least 0.1.')
    .optional(),
  /** Backups are encrypted by it. Whoever restores one needs it. */
  INKWELL_BACKUP_PASSPHRASE: z.string().min(12, 'INKWELL_BACKUP_PASSPHRASE has at least 12 characters.').optional(),
});
export type BackupSettings = z.infer<typeof BackupSettingsSchema>;

/** How backups are made. @throws an Error in plain words where something of it is wrong */
export const readBackupSettings = (environment: NodeJS.ProcessEnv): BackupSettings =>
  read(BackupSettingsSchema, environment);

/** When this worker makes backups by itself; null where it makes none, and `off` where no worker does any more. */
export function planOf(settings: BackupSettings): BackupPlan | null | 'off' {
  const { INKWELL_BACKUP: folder, INKWELL_BACKUP_HOURS: everyHours, INKWELL_BACKUP_KEEP: keep } = settings;
  if (folder === undefined) return null;
  if (folder === 'off') return folder;
  const isEncrypted = settings.INKWELL_BACKUP_PASSPHRASE !== undefined;
  return {
    folder: resolve(folder),
    everyHours,
    keep,
    isEncrypted,
    warnHours: settings.INKWELL_BACKUP_WARN ?? 2 * everyHours,
  };
}
