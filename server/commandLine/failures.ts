import { diskFull, isAboutRoom } from '../diskFull.ts';
import { isDatabaseAway } from '../postgresFailures.ts';
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

/** What went wrong, in a sentence. */
export function failureWords(error: unknown): string {
  if (error instanceof UserError) return error.message;
  if (isAboutRoom(error)) return diskFull().message;
  if (isDatabaseAway(error)) {
    return 'The database does not answer. Start it, or give the address of one that is running in DATABASE_URL, and try again.';
  }
  if (!(error instanceof Error)) return `Something went wrong in the program: ${String(error)}`;
  const { code = '', path } = error as NodeJS.ErrnoException;
  const words = fileWords[code];
  return words && path ? `${path} ${words}.` : `Something went wrong in the program: ${error.message}`;
}
