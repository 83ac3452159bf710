import { ChangeSchema, type Heard, type Present, PresentSchema } from '@inkwell/core/model';
import { sql } from 'drizzle-orm';
import pg from 'pg';
import { z } from 'zod';
import type { Queryable } from './database.ts';

/** The channels on which triggers tell of changes, and servers of who is where. */
const channels = { changes: 'changes', present: 'present' } as const;
const ofWorkspace = z.object({ workspaceId: z.string() });
const againMs = 1000;

/** Tells all servers where somebody is. */
export const tellPresence = async (db: Queryable, workspaceId: string, present: Present): Promise<void> => {
  await db.execute(sql`select pg_notify(${channels.present}, ${JSON.stringify({ ...present, workspaceId })})`);
};

/** Hears of whatever is changed in the database, by this server or another, over a connection of its own. */
export class Listening {
  private connection: pg.Client | null = null;
  private isStopped = false;
  private again: NodeJS.Timeout | undefined;

  /** @param hear of a workspace; of all of them, null, where something may have been missed */
  constructor(
    private readonly url: string,
    private readonly hear: (workspaceId: string | null, heard: Heard) => void,
    private readonly onLost: (error: Error) => void,
  ) {
    void this.connect();
  }

  async stop(): Promise<void> {
    this.isStopped = true;
    clearTimeout(this.again);
    await this.connection?.end().catch(() => undefined);
  }

  private async connect(): Promise<void> {
    const connection = new pg.Client({ connectionString: this.url, keepAlive: true });
    const lost = (error?: Error) => {
      if (this.connection !== connection || this.isStopped) return;
      this.connection = null;
      if (error) this.onLost(error);
      this.again = setTimeout(() => void this.connect(), againMs);
    };
    this.connection = connection;
    connection.on('error', lost);
    connection.on('end', () => lost());
    connection.on('notification', ({ channel, payload = '' }) => this.heard(channel, payload));
    try {
      await connection.connect();
      for (const channel of Object.values(channels)) await connection.query(`listen ${channel}`);
      // Whatever was told while nobody listened was missed.
      this.hear(null, { is: 'missed' });
    } catch (error) {
      lost(error instanceof Error ? error : undefined);
      await connection.end().catch(() => undefined);
    }
  }

  private heard(channel: string, payload: string): void {
    try {
      const said: unknown = JSON.parse(payload);
      const { workspaceId } = ofWorkspace.parse(said);
      if (channel === channels.present) this.hear(workspaceId, { is: 'present', present: PresentSchema.parse(said) });
      else this.hear(workspaceId, { is: 'change', change: ChangeSchema.parse(said) });
    } catch {
      // Another version of the program, or somebody else, tells it otherwise.
      this.hear(null, { is: 'missed' });
    }
  }
}
