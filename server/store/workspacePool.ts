import pg from 'pg';
import { fencedRole } from './fence.ts';

/** The workspace and the person that a connection was last used for. */
const usedFor = new WeakMap<pg.PoolClient, string>();

type Done = (error: Error | undefined, client: pg.PoolClient | undefined, release: pg.PoolClient['release']) => void;

/**
 * The connections of another pool, each put inside the fence of one workspace before it is lent, and told for whom. Any number of
 * workspaces share them; it holds none of its own.
 */
export class WorkspacePool extends pg.Pool {
  private readonly use: string;

  /** @param personId who asks; null where nobody is known to */
  constructor(
    private readonly shared: pg.Pool,
    private readonly workspaceId: string,
    private readonly personId: string | null,
  ) {
    super();
    this.use = `${workspaceId} ${personId}`;
  }

  override connect(): Promise<pg.PoolClient>;
  override connect(done: Done): void;
  override connect(done?: Done): Promise<pg.PoolClient> | undefined {
    const lent = this.lend();
    if (!done) return lent;
    lent.then(
      (client) => done(undefined, client, client.release.bind(client)),
      (error: Error) => done(error, undefined, () => undefined),
    );
    return undefined;
  }

  private async lend(): Promise<pg.PoolClient> {
    const client = await this.shared.connect();
    if (usedFor.get(client) === this.use) return client;
    // Until it is known to be inside, it is nobody's.
    usedFor.delete(client);
    try {
      await client.query(
        "select set_config('role', $1, false), set_config('inkwell.workspace', $2, false), set_config('inkwell.person', $3, false)",
        [fencedRole, this.workspaceId, this.personId ?? ''],
      );
    } catch (error) {
      client.release(true);
      throw error;
    }
    usedFor.set(client, this.use);
    return client;
  }
}
