import { execFileSync } from 'node:child_process';
import { appendFile, mkdtemp, readFile, rm } from 'node:fs/promises';
import { createServer } from 'node:net';
import { tmpdir, userInfo } from 'node:os';
import { join } from 'node:path';
import { globSync } from 'tinyglobby';
import { dropDatabase, ownDatabase } from './databases.ts';

const isRoot = userInfo().uid === 0;

/** A program of PostgreSQL, where Debian's package has put it; undefined where it is not on this machine. */
const programAt = (name: string): string | undefined =>
  globSync(`/usr/lib/postgresql/*/bin/${name}`, { absolute: true }).sort().reverse()[0];

/** Runs a program of PostgreSQL, which refuses to work for root. */
function run(program: string, words: readonly string[], within: readonly string[] = []): void {
  const line = [programAt(program) ?? program, ...words];
  const [command = '', ...rest] = [...within, ...(isRoot ? ['runuser', '-u', 'postgres', '--', ...line] : line)];
  // Where the tests lie may be closed to the user that it runs as.
  execFileSync(command, rest, { stdio: 'ignore', cwd: tmpdir() });
}

export async function freePort(): Promise<number> {
  const server = createServer();
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const { port } = server.address() as { port: number };
  await new Promise((closed) => server.close(closed));
  return port;
}

/** Where a cluster lies and is reached, if not in a folder of its own and at this machine alone. */
export interface ClusterAt {
  folder?: string;
  /** Another host of a test: its address, the net from which it may be reached, and how something is run there. */
  host?: { address: string; net: string; within: readonly string[] };
}

/** A cluster of PostgreSQL on this machine, which can be stopped, started and killed. */
export class Cluster {
  private constructor(
    private readonly folder: string,
    private readonly port: number,
    private readonly host: ClusterAt['host'],
  ) {}

  static async make({ folder, host }: ClusterAt = {}): Promise<Cluster> {
    const own = folder ?? (await mkdtemp(join(tmpdir(), 'inkwell-cluster-')));
    if (isRoot) execFileSync('chown', ['postgres', own]);
    const cluster = new Cluster(own, await freePort(), host);
    run('initdb', ['-D', cluster.data, '-U', 'inkwell', '--auth=trust', '-E', 'UTF8', '--locale=C.UTF-8']);
    if (host) await appendFile(join(cluster.data, 'pg_hba.conf'), `host all all ${host.net} trust\n`);
    await appendFile(
      join(cluster.data, 'postgresql.conf'),
      `port = ${cluster.port}\nlisten_addresses = '${cluster.address}'\nunix_socket_directories = ''\nfsync = off\n`,
    );
    cluster.start();
    return cluster;
  }

  private get data(): string {
    return join(this.folder, 'data');
  }

  private get address(): string {
    return this.host?.address ?? '127.0.0.1';
  }

  get url(): string {
    return `postgres://inkwell@${this.address}:${this.port}/postgres`;
  }

  /** @throws where it does not start */
  start(): void {
    const words = ['-D', this.data, '-w', '-t', '120', '-l', join(this.folder, 'log'), 'start'];
    run('pg_ctl', words, this.host?.within);
  }

  /** As when the machine is switched off. */
  stop(): void {
    run('pg_ctl', ['-D', this.data, '-m', 'immediate', '-w', 'stop']);
  }

  /** The number of the process that starts all others. */
  async postmaster(): Promise<number> {
    return Number((await readFile(join(this.data, 'postmaster.pid'), 'utf8')).split('\n')[0]);
  }

  /** Stops it, as far as it runs, and takes it away. */
  async destroy(): Promise<void> {
    this.stop();
    await rm(this.folder, { recursive: true, force: true });
  }
}

/** A cluster of PostgreSQL with nothing in it; where PostgreSQL runs on another machine, an empty database there. @param server where that is */
export async function ownCluster(server: string): Promise<{ url: string; destroy(): Promise<void> }> {
  if (hasPostgres()) return Cluster.make();
  const url = await ownDatabase(server, 'inkwell_cluster');
  return { url, destroy: () => dropDatabase(url) };
}

/** Whether PostgreSQL's own programs are on this machine. */
export const hasPostgres = (): boolean => programAt('initdb') !== undefined;
