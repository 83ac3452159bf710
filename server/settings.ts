import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { z } from 'zod';

const root = fileURLToPath(new URL('..', import.meta.url));

const SettingsSchema = z.object({
  DATABASE_URL: z.url({
    protocol: /^postgres(ql)?$/,
    error: 'DATABASE_URL has to be a postgres:// address. ./inkwell sets it by itself.',
  }),
  /** The first port that is tried. */
  PORT: z.coerce.number().int().min(1024).max(65_535).default(4600),
  /** Cache, half-arrived files and the log. Nothing in it has to last. */
  INKWELL_DATA: z.string().default(join(root, '.inkwell')),
  INKWELL_WEB: z.string().default(join(root, 'web', 'dist')),
  /** Whether this process looks at pictures for what matters in them. A worker that does takes about 330 MB more. */
  INKWELL_LOOK: z.enum(['on', 'off']).default('on'),
  /** A folder with files of further simulated networks. */
  INKWELL_NETWORKS: z.string().optional(),
  LOG_LEVEL: z.enum(['debug', 'info', 'warn', 'error']).default('info'),
});
export type Settings = z.infer<typeof SettingsSchema>;

/** Settings from the environment. @throws an Error in plain words where one is wrong */
export function readSettings(environment: NodeJS.ProcessEnv): Settings {
  const settings = SettingsSchema.safeParse(environment);
  if (!settings.success) throw new Error(z.prettifyError(settings.error));
  return settings.data;
}
