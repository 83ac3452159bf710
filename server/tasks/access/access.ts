import type { Database } from '../../store/database.ts';
import type { Mailing } from './mailing.ts';
import type { Throttling } from './throttling.ts';

/** What accounts work with, where they are needed. */
export interface Access {
  db: Database;
  throttling: Throttling;
  /** Null where mails stay on a page of the program. */
  mailing: Mailing | null;
}
