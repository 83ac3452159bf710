import { mkdir } from 'node:fs/promises';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import { pino } from 'pino';
import { makeApp } from './api/app.ts';
import { BoundedFolder } from './imaging/boundedFolder.ts';
import { Importing } from './imaging/importing.ts';
import { Decoders } from './imaging/intake/decoders.ts';
import { Pages } from './imaging/pages.ts';
import { Proofs } from './imaging/proofs.ts';
import { RecentPixels } from './imaging/recentPixels.ts';
import { Trials } from './imaging/trials.ts';
import { WorkingCopies } from './imaging/workingCopy.ts';
import { deliver } from './jobs/deliver.ts';
import { measure } from './jobs/measure.ts';
import { openQueue } from './jobs/queue.ts';
import { Planner } from './planner.ts';
import type { Services } from './services.ts';
import type { Settings } from './settings.ts';
import { blobToFile } from './store/blobs.ts';
import { clearUnused } from './store/clearing.ts';
import { openDatabase } from './store/database.ts';
import { strandedDeliveries } from './store/deliveries.ts';

const gigabyte = 1_000_000_000;
const workingCopyBound = 12 * gigabyte;
const proofBound = 2 * gigabyte;
const pageBound = gigabyte;
/** A worker gives a sign of life every three seconds; after this long without one it is taken to be gone. */
const strandedAfterSeconds = 12;
const portsTried = 50;

export interface Running {
  address: string;
  services: Services;
  stop(): Promise<void>;
}

/** Starts everything in one process: database, queue and its work, and the web server on 127.0.0.1. */
export async function start(settings: Settings): Promise<Running> {
  await mkdir(settings.INKWELL_DATA, { recursive: true });
  const log = pino({ level: settings.LOG_LEVEL }, pino.destination(join(settings.INKWELL_DATA, 'inkwell.log')));

  const { db, close } = await openDatabase(settings.DATABASE_URL);
  const cache = join(settings.INKWELL_DATA, 'cache');
  const fetchBlob = (sha256: string, path: string) => blobToFile(db, sha256, path);
  const decoders = new Decoders();
  const copies = await WorkingCopies.open(
    await BoundedFolder.open(join(cache, 'working'), workingCopyBound),
    fetchBlob,
    decoders,
  );
  const proofs = new Proofs(await BoundedFolder.open(join(cache, 'proofs'), proofBound, 100), copies);
  const importing = await Importing.open(join(settings.INKWELL_DATA, 'incoming'), db, copies, decoders);
  const pages = new Pages(await BoundedFolder.open(join(cache, 'pages'), pageBound), copies, decoders, fetchBlob);
  const planner = new Planner(db);
  const recent = new RecentPixels(copies);
  const trials = new Trials(recent);
  const queue = await openQueue(
    settings.DATABASE_URL,
    {
      measure: (frameId, change) => measure({ db, copies, planner, recent }, frameId, change),
      deliver: (deliveryId) => deliver(db, copies, deliveryId),
      async lookAfter() {
        for (const id of await strandedDeliveries(db, strandedAfterSeconds)) await queue.askDelivery(id);
      },
      async clear() {
        const gone = await clearUnused(db);
        if (gone.length > 0) log.info({ gone }, 'cleared away');
      },
    },
    log,
  );
  const services: Services = { db, planner, importing, proofs, copies, decoders, pages, recent, trials, queue, log };
  const server = createServer(makeApp(services, settings.INKWELL_WEB));
  const port = await listen(server, settings.PORT);
  return {
    address: `http://127.0.0.1:${port}`,
    services,
    async stop() {
      server.closeAllConnections();
      await new Promise((closed) => server.close(closed));
      decoders.end();
      await queue.stop();
      await close();
    },
  };
}

/** Listens on the first free port from `wanted` on, on 127.0.0.1 only. */
async function listen(server: Server, wanted: number): Promise<number> {
  for (let port = wanted; port < wanted + portsTried; port += 1) {
    try {
      await new Promise<void>((resolve, reject) => {
        server.once('error', reject);
        server.listen(port, '127.0.0.1', () => {
          server.off('error', reject);
          resolve();
        });
      });
      return (server.address() as AddressInfo).port;
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== 'EADDRINUSE') throw error;
      console.log(`Port ${port} is taken; trying ${port + 1}.`);
    }
  }
  throw new Error(`No free port between ${wanted} and ${wanted + portsTried - 1}. Set PORT to another number.`);
}
