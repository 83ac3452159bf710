import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import type { Logger } from 'pino';
import { type NetworkAccount, writeAccounts } from '../networkAccounts.ts';
import { networkApp } from './networkApp.ts';
import type { NetworkSheet } from './networkSheet.ts';
import { openStandInDatabase } from './store/database.ts';
import { tokenOf } from './store/posts.ts';

export interface RunningStandIns {
  networks: NetworkAccount[];
  stop(): Promise<void>;
}

/**
 * Starts every network as a web service of its own, on a free port of 127.0.0.1, and writes down where: in a file that only its own
 * user may read, for it holds the tokens.
 *
 * @param path of that file
 */
export async function startStandIns(
  databaseUrl: string,
  path: string,
  sheets: readonly NetworkSheet[],
  log: Logger,
): Promise<RunningStandIns> {
  const { db, close } = await openStandInDatabase(databaseUrl, (error) =>
    log.warn({ error }, 'a connection of the stand-ins broke'),
  );
  const started = await Promise.all(
    sheets.map(async (sheet) => {
      const token = await tokenOf(db, sheet.slug);
      const server = createServer(networkApp({ db, sheet, token, log }));
      await new Promise<void>((resolve, reject) => {
        server.once('error', reject);
        server.listen(0, '127.0.0.1', resolve);
      });
      const { port } = server.address() as AddressInfo;
      return { server, network: { slug: sheet.slug, name: sheet.name, address: `http://127.0.0.1:${port}`, token } };
    }),
  );
  const networks = started.map(({ network }) => network);
  await writeAccounts(path, networks);
  return {
    networks,
    async stop() {
      for (const { server } of started) {
        server.closeAllConnections();
        await new Promise((closed) => server.close(closed));
      }
      await close();
    },
  };
}
