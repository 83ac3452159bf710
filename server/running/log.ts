import { type Logger, pino } from 'pino';
import { loggedError } from './loggedError.ts';

/** So many characters wait to be written at most: while a disk is full, what comes on top is lost, and nothing else is. */
const mostWaiting = 1_000_000;

/**
 * The program's log. Writing it never keeps the program waiting, and never ends it: not on a full disk, not without a folder. What is logged as `error` tells nothing of the
 * values that it was about.
 */
export function openLog(path: string, level: string): Logger {
  const file = pino.destination({ dest: path, sync: false, mode: 0o600, maxLength: mostWaiting });
  file.on('error', () => undefined);
  return pino({ level, serializers: { error: loggedError } }, file);
}
