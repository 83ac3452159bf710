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
  /** Whether programs have to show a token that ask the API; pages of the program never do. */
  INKWELL_TOKENS: z.enum(['welcome', 'needed']).default('welcome'),
  /** Hosts that webhooks may call beside this machine, with commas between. */
  INKWELL_HOOK_HOSTS: z.string().default(''),
  LOG_LEVEL: z.enum(['debug', 'info', 'warn', 'error']).default('info'),
});
export type Settings = z.infer<typeof SettingsSchema>;

/** The hosts that webhooks may call beside this machine. */
export const hookHosts = ({ INKWELL_HOOK_HOSTS }: Pick<Settings, 'INKWELL_HOOK_HOSTS'>): string[] =>
  INKWELL_HOOK_HOSTS.split(',').flatMap((host) => host.trim().toLowerCase() || []);

/** Settings from the environment. @throws an Error in plain words where one is wrong */
export function readSettings(environment: NodeJS.ProcessEnv): Settings {
  const settings = SettingsSchema.safeParse(environment);
  if (!settings.success) throw new Error(z.prettifyError(settings.error));
  return settings.data;
}
