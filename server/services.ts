import type { Logger } from 'pino';
import type { Fonts } from './fonts/fonts.ts';
import type { Proofs } from './imaging/copies/proofs.ts';
import type { RecentPixels } from './imaging/copies/recentPixels.ts';
import type { WorkingCopies } from './imaging/copies/workingCopy.ts';
import type { Trials } from './imaging/encoding/trials.ts';
import type { Pages } from './imaging/intake/pages.ts';
import type { Decoders } from './imaging/intake/processes/decoders.ts';
import type { NetworkAccount } from './networkAccounts.ts';
import type { Database } from './store/database.ts';
import type { Access } from './tasks/access/access.ts';
import type { Importing } from './tasks/library/importing.ts';
import type { Planner } from './tasks/plans/planner.ts';

/** What the routes of the API work with. */
export interface Services {
  db: Database;
  planner: Planner;
  fonts: Fonts;
  importing: Importing;
  proofs: Proofs;
  copies: WorkingCopies;
  decoders: Decoders;
  pages: Pages;
  recent: RecentPixels;
  trials: Trials;
  /** Null where people need no accounts: on a machine with one person. */
  access: Access | null;
  /** Whether pictures are looked at for what matters in them. */
  isLooking: boolean;
  /** The accounts at the simulated networks, as they are now. */
  accounts: () => Promise<NetworkAccount[]>;
  /** Hosts that webhooks may call beside this machine. */
  hookHosts: readonly string[];
  log: Logger;
}
