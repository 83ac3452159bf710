import { execFileSync } from 'node:child_process';
import { mkdtemp, rm } from 'node:fs/promises';
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
function run(program: string, words: readonly string[]): void {
  const line = [programAt(program) ?? program, ...words];
  const [command = '', ...rest] = isRoot ? ['runuser', '-u', 'postgres', '--', ...line] : line;
  // Where the tests lie may be closed to the user that it runs as.
  execFileSync(command, rest, { stdio: 'ignore', cwd: tmpdir() });
}

async function freePort(): Promise<number> {
  const server = createServer();
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const { port } = server.address() as { port: number };
  await new Promise((closed) => server.close(closed));
  return port;
}

/** A cluster of PostgreSQL with nothing in it; where PostgreSQL runs on another machine, an empty database there. @param server where that is */
export async function ownCluster(server: string): Promise<{ url: string; destroy(): Promise<void> }> {
  if (!programAt('initdb')) {
    const url = await ownDatabase(server, 'inkwell_cluster');
    return { url, destroy: () => dropDatabase(url) };
  }
  const folder = await mkdtemp(join(tmpdir(), 'inkwell-cluster-'));
  if (isRoot) execFileSync('chown', ['postgres', folder]);
  const data = join(folder, 'data');
  const port = await freePort();
  run('initdb', ['-D', data, '-U', 'inkwell', '--auth=trust', '-E', 'UTF8', '--locale=C.UTF-8']);
  run('pg_ctl', [
    ...['-D', data, '-w', '-l', join(folder, 'log')],
    ...['-o', `-p ${port} -h 127.0.0.1 -k '' -c fsync=off`, 'start'],
  ]);
  return {
    url: `postgres://inkwell@127.0.0.1:${port}/postgres`,
    async destroy() {
      run('pg_ctl', ['-D', data, '-m', 'immediate', '-w', 'stop']);
      await rm(folder, { recursive: true });
    },
  };
}
