import { statfs } from 'node:fs/promises';
import { UserError } from './userError.ts';

/** With less room than this, in bytes, what fails fails for want of room: libraries often do not say so themselves. */
const leastRoom = 4_000_000;

/** As the system and PostgreSQL say it, whose words do not always. */
const codes: unknown[] = ['ENOSPC', '53100'];

const saysSo = (error: unknown): boolean =>
  error instanceof Error &&
  (('code' in error && codes.includes(error.code)) || /no space left on device|ENOSPC|disk full/i.test(error.message));

/** Whether something failed because the disk is full that holds `folder`. */
export async function isDiskFull(error: unknown, folder: string): Promise<boolean> {
  if (saysSo(error)) return true;
  const { bavail, bsize } = await statfs(folder);
  return bavail * bsize < leastRoom;
}

/** Whether an error says itself that a disk is full, the database's included. */
export const isAboutRoom = (error: unknown): boolean =>
  saysSo(error) || (error instanceof Error && error.cause !== undefined && isAboutRoom(error.cause));

export const diskFull = (): UserError =>
  new UserError('The disk is full. Make room on it, then try again. Nothing that was saved is lost.', 507);
