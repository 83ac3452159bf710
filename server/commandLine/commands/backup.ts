import { mkdir } from 'node:fs/promises';
import { resolve } from 'node:path';
import { formatWeight } from '@inkwell/core/model';
import { Command } from 'commander';
import { readBackupSettings } from '../../settings/backupSettings.ts';
import type { Settings } from '../../settings/settings.ts';
import { type Code, codes, Misuse } from '../codes.ts';
import { type Context, type Run, settingsOf, shown, withDoor } from '../context.ts';
import { counted } from '../options.ts';
import { Progress } from '../progress.ts';

const aboutPassphrase = 'INKWELL_BACKUP_PASSPHRASE encrypts a backup, and opens it again: without it nobody can.';

/** `backup FILE|FOLDER`, `backup --check FILE` */
export function backupCommand(context: Context, run: Run): Command {
  return new Command('backup')
    .description('Makes a backup of everything, of one moment, while people work; or looks whether one is whole.')
    .argument('<target>', 'a file, or a folder in which each backup gets a name of its own')
    .option('--check', 'looks whether the file is a whole backup; no database is needed', false)
    .option('--keep <n>', 'in a folder, removes all but the newest n once this one is whole', counted)
    .addHelpText(
      'after',
      `
Where it was broken off, it goes on when it is run again. ${aboutPassphrase}

Examples:
  ./inkwell backup saturday.tar
  ./inkwell backup backups/ --keep 7
  ./inkwell backup --check saturday.tar`,
    )
    .action((target: string, { check, keep }: { check: boolean; keep?: number }) =>
      run(() => (check ? checked(context, target) : made(context, target, keep ?? null))),
    );
}

/** `restore FILE` */
export function restoreCommand(context: Context, run: Run): Command {
  return new Command('restore')
    .description('Restores a backup into an empty database: all of it or nothing.')
    .argument('<file>', 'a backup, of this version of the program or an older one')
    .addHelpText(
      'after',
      `
The program may not run on the database meanwhile. Where bytes are to lie in an S3 store, name it as for the program itself.
${aboutPassphrase}

Example:
  ./inkwell restore saturday.tar`,
    )
    .action((file: string) => run(() => restored(context, file)));
}

/** Opens the store of bytes beside the database, where there is one: there is no program yet that could. */
async function openStore(settings: Settings): Promise<void> {
  const { openObjects } = await import('../../start.ts');
  const { openLog } = await import('../../running/log.ts');
  await mkdir(settings.INKWELL_DATA, { recursive: true });
  await openObjects(settings, openLog(resolve(settings.INKWELL_DATA, 'inkwell.log'), settings.LOG_LEVEL));
}

const passphraseIn = ({ environment }: Context): string | null =>
  readBackupSettings(environment).INKWELL_BACKUP_PASSPHRASE ?? null;

/** Where something lies that was named, and whether it was named as a folder. */
const placed = ({ caller }: Context, path: string): string => resolve(caller, path) + (path.endsWith('/') ? '/' : '');

const files = (count: number): string => `${count} ${count === 1 ? 'file' : 'files'}`;
const momentOf = (at: Date | string): string => new Date(at).toISOString().replace('T', ' ').slice(0, 19);

async function made(context: Context, target: string, keep: number | null): Promise<Code> {
  const passphrase = passphraseIn(context);
  const { backUp, targetOf } = await import('../../tasks/backup/backUp.ts');
  const to = await targetOf(placed(context, target), keep);
  if ('file' in to && keep !== null) throw new Misuse(`${target} is a file: --keep is for folders.`);
  return withDoor(context, async ({ whole }) => {
    let progress: Progress | null = null;
    const onFile = (done: number, of: number) => {
      progress ??= new Progress('Files', of, false);
      progress.at(done);
    };
    const url = settingsOf(context).DATABASE_URL;
    const made = await backUp({ url, whole, passphrase, onFile }, to).finally(() => progress?.end());
    const how = passphrase === null ? 'not encrypted' : 'encrypted';
    context.say(
      `${shown(context, made.path)}: ${files(made.files)}, ${formatWeight(made.bytes, 'MB')}, as of ${momentOf(made.takenAt)} UTC, ${how}.`,
    );
    return codes.right;
  });
}

async function checked(context: Context, target: string): Promise<Code> {
  const { checkBackup } = await import('../../tasks/backup/readBackup.ts');
  const path = resolve(context.caller, target);
  const { end } = await checkBackup(path, passphraseIn(context));
  context.say(`${shown(context, path)} is whole: ${files(end.blobs.length)}, as of ${momentOf(end.takenAt)} UTC.`);
  return codes.right;
}

async function restored(context: Context, file: string): Promise<Code> {
  const settings = settingsOf(context);
  const { restoreBackup } = await import('../../tasks/backup/restoreBackup.ts');
  const { openDatabase } = await import('../../store/database.ts');
  await openStore(settings);
  const path = resolve(context.caller, file);
  const end = await restoreBackup(settings.DATABASE_URL, path, { passphrase: passphraseIn(context) });
  const { close } = await openDatabase(settings.DATABASE_URL);
  await close();
  context.say(`${shown(context, path)} is restored: ${files(end.blobs.length)}, as of ${momentOf(end.takenAt)} UTC.`);
  return codes.right;
}
