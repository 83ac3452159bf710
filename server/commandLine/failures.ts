import { UnfitDatabase } from '../database/migrating.ts';
import { isDatabaseAway } from '../database/postgresFailures.ts';
import { diskFull, isAboutRoom } from '../diskFull.ts';
import { UnfitSettings } from '../settings/settings.ts';
import { ObjectsAway } from '../store/blobs/objects.ts';
import { UnfitBackup } from '../tasks/backup/format.ts';
import { UserError } from '../userError.ts';

/** What a system call says about a file, in words. */
const fileWords: Record<string, string> = {
  EACCES: 'may not be opened or written by this user',
  EPERM: 'may not be opened or written by this user',
  EROFS: 'cannot be written: its disk is read-only',
  ENOENT: 'is not there',
  EEXIST: 'is there already, and nothing is ever replaced',
  EISDIR: 'is a folder',
  ENOTDIR: 'is not in a folder',
  ENAMETOOLONG: 'has too long a name',
};

/** What is wrong with a file that was to be read or written; null where something else went wrong. */
function systemWords(error: unknown, file?: string): string | null {
  if (!(error instanceof Error)) return null;
  const { code = '', path = file } = error as NodeJS.ErrnoException;
  const words = fileWords[code];
  return words && path ? `${path} ${words}.` : null;
}

/** Why one picture cannot be taken, in a sentence; null where what went wrong holds for all of them, such as a full disk. */
export function fileProblem(error: unknown, file: string): string | null {
  if (error instanceof UserError) return error.status < 500 ? error.message : null;
  return systemWords(error, file);
}

/** What went wrong, in a sentence. */
export function failureWords(error: unknown): string {
  const isSaid = [UserError, UnfitDatabase, UnfitBackup, UnfitSettings].some((kind) => error instanceof kind);
  if (error instanceof Error && isSaid) return error.message;
  if (isAboutRoom(error)) return diskFull().message;
  if (error instanceof ObjectsAway)
    return `${error.message} Start it, or look whether INKWELL_S3_ENDPOINT is right, and try again.`;
  if (isDatabaseAway(error)) {
    return 'The database does not answer. Start it, or give the address of one that is running in DATABASE_URL, and try again.';
  }
  const said = error instanceof Error ? error.message : String(error);
  return systemWords(error) ?? `Something went wrong in the program: ${said}`;
}
