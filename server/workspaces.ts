import { LRUCache } from 'lru-cache';
import type { Fonts } from './fonts/fonts.ts';
import type { Database, OpenDatabase } from './store/database.ts';
import { keptPlans, Planner } from './tasks/plans/planner.ts';

/** What works on the rows of one workspace, and sees no others. */
export interface WorkspaceTools {
  workspaceId: string;
  db: Database;
  planner: Planner;
}

/** So many workspaces, and of them as many by the people in them, are kept at hand; one more is opened again when it is needed. */
const mostAtHand = 200;

/** Opens workspaces as they are needed. That they are there, and who may be in them, is somebody else's to know. */
export class Workspaces {
  private readonly atHand = new LRUCache<string, WorkspaceTools>({ max: mostAtHand });
  private readonly planners = new LRUCache<string, Planner>({ max: mostAtHand });
  private readonly plans = keptPlans();

  constructor(
    private readonly fenced: OpenDatabase['fenced'],
    private readonly fonts: Fonts,
  ) {}

  /** @param personId for whom something is done there; null where nobody is known to ask */
  at(workspaceId: string, personId: string | null = null): WorkspaceTools {
    const key = `${workspaceId} ${personId}`;
    const known = this.atHand.get(key);
    if (known) return known;
    const db = this.fenced(workspaceId, personId);
    const opened = { workspaceId, db, planner: this.plannerOf(workspaceId) };
    this.atHand.set(key, opened);
    return opened;
  }

  /** Everybody in a workspace plans from the same. */
  private plannerOf(workspaceId: string): Planner {
    const known = this.planners.get(workspaceId);
    if (known) return known;
    const planner = new Planner(this.fenced(workspaceId), this.fonts, this.plans);
    this.planners.set(workspaceId, planner);
    return planner;
  }
}
