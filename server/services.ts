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
import type { Counting } from './tasks/sharing/counting.ts';
import type { WorkspaceTools } from './workspaces.ts';

/** What all workspaces share. */
interface Shared {
  fonts: Fonts;
  proofs: Proofs;
  copies: WorkingCopies;
  decoders: Decoders;
  pages: Pages;
  recent: RecentPixels;
  trials: Trials;
  /** Whether pictures are looked at for what matters in them. */
  isLooking: boolean;
  /** The accounts at the simulated networks, as they are now. */
  accounts: () => Promise<NetworkAccount[]>;
  /** Hosts that webhooks may call beside this machine. */
  hookHosts: readonly string[];
  log: Logger;
}

/** What the routes of a workspace work with: its rows, and what all workspaces share. */
export interface Services extends Shared, WorkspaceTools {
  importing: Importing;
}

/** Opens a workspace for whoever asks there. @param personId null, or left out, where nobody is known to */
export type OpenInside = (workspaceId: string, personId?: string | null) => Services;

/** What the routes of the door work with: they see who may be in which workspace, and open none. */
export interface DoorServices {
  /** All rows of all workspaces. */
  whole: Database;
  /** Null where people need no accounts: on a machine with one person. */
  access: Access | null;
  /** Counts what comes against the shares of people and workspaces. */
  counting: Counting;
  /** The one that everybody is in where there are no accounts. */
  firstWorkspace: string;
}
