import { z } from 'zod';

/** A backup that was made, or is being made. */
export const BackupSchema = z.object({
  id: z.uuid(),
  /** Where it lies, on the machine that made it. */
  path: z.string(),
  startedAt: z.iso.datetime(),
  /** The moment that it is of; null where it is not done. */
  takenAt: z.iso.datetime().nullable(),
  files: z.int(),
  bytes: z.int(),
  state: z.enum(['making', 'done', 'failed']),
  /** Why it failed, in words. */
  failure: z.string().nullable(),
});
export type Backup = z.infer<typeof BackupSchema>;

/** When backups are made by themselves, and where. */
export const BackupPlanSchema = z.object({
  folder: z.string(),
  everyHours: z.number(),
  keep: z.int(),
  isEncrypted: z.boolean(),
  /** When the last good one is older than this, people are warned. */
  warnHours: z.number(),
});
export type BackupPlan = z.infer<typeof BackupPlanSchema>;

export const BackupsSchema = z.object({
  /** Null where no backup is made by itself. */
  plan: BackupPlanSchema.nullable(),
  /** Whether somebody has asked for one that has not begun yet. */
  isAsked: z.boolean(),
  /** The newest first. */
  backups: z.array(BackupSchema),
  /** The moment that the last good one is of. */
  lastGoodAt: z.iso.datetime().nullable(),
  /** Whether that is longer ago than was chosen. */
  isLate: z.boolean(),
});
export type Backups = z.infer<typeof BackupsSchema>;
