import type { Logger } from 'pino';
import type { Importing } from './imaging/importing.ts';
import type { Decoders } from './imaging/intake/decoders.ts';
import type { Pages } from './imaging/pages.ts';
import type { Proofs } from './imaging/proofs.ts';
import type { RecentPixels } from './imaging/recentPixels.ts';
import type { Trials } from './imaging/trials.ts';
import type { WorkingCopies } from './imaging/workingCopy.ts';
import type { Planner } from './planner.ts';
import type { Database } from './store/database.ts';

/** What the routes of the API work with. */
export interface Services {
  db: Database;
  planner: Planner;
  importing: Importing;
  proofs: Proofs;
  copies: WorkingCopies;
  decoders: Decoders;
  pages: Pages;
  recent: RecentPixels;
  trials: Trials;
  log: Logger;
}
