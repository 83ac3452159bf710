import { chmod, mkdir } from 'node:fs/promises';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import type pg from 'pg';
import type { Logger } from 'pino';
import { makeApp } from './api/app.ts';
import { openSessions } from './api/door/sessions.ts';
import { Streams } from './api/sending/streams.ts';
import { Fonts } from './fonts/fonts.ts';
import { BoundedFolder } from './imaging/copies/boundedFolder.ts';
import { Proofs } from './imaging/copies/proofs.ts';
import { RecentPixels } from './imaging/copies/recentPixels.ts';
import { WorkingCopies } from './imaging/copies/workingCopy.ts';
import { Trials } from './imaging/encoding/trials.ts';
import { Pages } from './imaging/intake/pages.ts';
import { Decoders } from './imaging/intake/processes/decoders.ts';
import { BackupSchedule } from './jobs/backupSchedule.ts';
import { tellOfWorker } from './jobs/tellOfWorker.ts';
import { Worker } from './jobs/worker.ts';
import { networksFile, readAccounts } from './networkAccounts.ts';
import { closeGently } from './running/closeGently.ts';
import { openLog } from './running/log.ts';
import type { DoorServices, OpenInside, Services } from './services.ts';
import { type AccessSettings, accessSettings, mailingOf } from './settings/accessSettings.ts';
import { type BackupSettings, planOf, readBackupSettings } from './settings/backupSettings.ts';
import { hookHosts, readWorkerSettings, type Settings, s3Settings, type WorkerSettings } from './settings/settings.ts';
import { networkSheets } from './standins/networkSheet.ts';
import { type RunningStandIns, startStandIns } from './standins/startStandIns.ts';
import { firstWorkspace, listWorkspaces } from './store/access/workspaces.ts';
import { blobToFile } from './store/blobs/blobs.ts';
import { nameObjects, ObjectsAway } from './store/blobs/objects.ts';
import { type Database, openDatabase } from './store/database.ts';
import { Listening } from './store/listening.ts';
import { firstLink } from './tasks/access/invitations.ts';
import { Throttling } from './tasks/access/throttling.ts';
import { Importing } from './tasks/library/importing.ts';
import { Counting } from './tasks/sharing/counting.ts';
import { Workspaces } from './workspaces.ts';

const gigabyte = 1_000_000_000;
const workingCopyBound = 12 * gigabyte;
const proofBound = 2 * gigabyte;
const pageBound = gigabyte;
const portsTried = 50;
/** A server that is told to stop ends what it is at within so long. */
const answerWithinMs = 5000;

/** What a server and a worker both stand on: they meet nowhere but in the database, and in a cache that may vanish. */
async function openGround(settings: Settings) {
  await mkdir(settings.INKWELL_DATA, { recursive: true });
  const log = openLog(join(settings.INKWELL_DATA, 'inkwell.log'), settings.LOG_LEVEL);
  await openObjects(settings, log);
  const { whole, pool, fenced, close } = await openDatabase(settings.DATABASE_URL, (error) =>
    log.warn({ error }, 'a connection to the database broke'),
  );
  const cache = join(settings.INKWELL_DATA, 'cache');
  await mkdir(cache, { recursive: true });
  // Pictures are nobody else's business on a machine with several users.
  await chmod(cache, 0o700);
  const fetchBlob = (sha256: string, path: string) => blobToFile(whole, sha256, path);
  const decoders = new Decoders();
  const copies = await WorkingCopies.open(
    await BoundedFolder.open(join(cache, 'working'), workingCopyBound),
    fetchBlob,
    decoders,
  );
  // No cache: words are planned from these files at any time, and none of them may vanish.
  const fonts = new Fonts(join(settings.INKWELL_DATA, 'fonts'));
  const workspaces = new Workspaces(fenced, fonts);
  const recent = new RecentPixels(copies);
  return { log, whole, pool, close, cache, fetchBlob, decoders, copies, fonts, workspaces, recent };
}

/** Names the store of bytes beside the database, or none. @throws Error where it refuses what is asked of it */
export async function openObjects(settings: Settings, log: Logger): Promise<void> {
  const s3 = s3Settings(settings);
  if (!s3) {
    nameObjects(null);
    return;
  }
  // Few have one, and what speaks its protocol takes a while to load.
  const { S3Store } = await import('./store/blobs/s3Store.ts');
  const store = new S3Store(s3.store);
  nameObjects({ store, takesNew: s3.takesNew });
  await store.check().catch((error: unknown) => {
    if (!(error instanceof ObjectsAway)) throw error;
    log.warn({ error: error.cause }, error.message);
  });
}

/** The workspace with a name or an id. @param wanted undefined for the first @throws Error in plain words where it is none, or one of several */
async function workspaceNamed(whole: Database, wanted: string | undefined): Promise<string> {
  if (wanted === undefined) return firstWorkspace(whole);
  const all = await listWorkspaces(whole);
  const [found, another] = all.filter(({ id, name }) => id === wanted || name === wanted);
  if (found && !another) return found.id;
  const known = all.map(({ id, name }) => `${name} (${id})`).join(', ');
  throw new Error(
    `INKWELL_WORKSPACE: ${found ? 'several workspaces have this name' : 'there is no such workspace'}. Name one of these, or its id: ${known}.`,
  );
}

export interface OpenServices {
  /** Of the workspace that was named, or of the first. */
  services: Services;
  door: DoorServices;
  inside: OpenInside;
  pool: pg.Pool;
  stop(): Promise<void>;
}

/** Opens what the API and the command line work with. @param at the door of a server; the command line has none */
export async function openServices(
  settings: Settings,
  at: Pick<AccessSettings, 'hasAccounts' | 'mailing'> | null = null,
): Promise<OpenServices> {
  const { log, whole, pool, close, cache, fetchBlob, decoders, copies, fonts, workspaces, recent } =
    await openGround(settings);
  const proofs = new Proofs(await BoundedFolder.open(join(cache, 'proofs'), proofBound, 500), copies);
  const isLooking = settings.INKWELL_LOOK === 'on';
  const importing = await Importing.open(join(settings.INKWELL_DATA, 'incoming'), whole, copies, decoders, isLooking);
  const pages = new Pages(await BoundedFolder.open(join(cache, 'pages'), pageBound), copies, decoders, fetchBlob);
  const trials = new Trials(recent);
  const shared = {
    fonts,
    proofs,
    copies,
    decoders,
    pages,
    recent,
    trials,
    isLooking,
    hookHosts: hookHosts(settings),
    accounts: () => readAccounts(networksFile(settings.INKWELL_DATA)),
    log,
  };
  const inside: OpenInside = (workspaceId, personId = null) => {
    const tools = workspaces.at(workspaceId, personId);
    return { ...shared, ...tools, importing: importing.into(tools.db, personId ?? workspaceId) };
  };
  const door = {
    whole,
    access: at?.hasAccounts ? { db: whole, throttling: new Throttling(whole, pool), mailing: at.mailing } : null,
    counting: new Counting(whole, pool),
    firstWorkspace: await firstWorkspace(whole),
  };
  return {
    services: inside(await workspaceNamed(whole, settings.INKWELL_WORKSPACE)),
    door,
    inside,
    pool,
    async stop() {
      decoders.end();
      await close();
    },
  };
}

export interface RunningServer extends OpenServices {
  address: string;
  port: number;
  /** Where the first account is made, as long as there is none and one is needed. */
  firstLink: string | null;
}

/** Starts the web server. It measures and delivers nothing: that is a worker's. @throws Error where it would be open to others */
export async function startServer(settings: Settings): Promise<RunningServer> {
  const at = accessSettings(settings);
  const { services, door, inside, pool, stop } = await openServices(settings, at);
  const { log } = services;
  const sessions = at.hasAccounts ? await openSessions(door.whole, pool, at.isSecure, log) : null;
  const streams = new Streams();
  const listening = new Listening(
    settings.DATABASE_URL,
    (workspaceId, heard) => streams.tell(workspaceId, heard),
    (error) => log.warn({ error }, 'the connection broke over which changes are heard of'),
  );
  let isLeaving = false;
  const server = createServer(
    makeApp({ door, inside, streams, log }, settings, at, {
      sessions: sessions?.handler ?? null,
      isLeaving: () => isLeaving,
    }),
  );
  // Longer than any browser waits before it asks again: a connection that closes just then would lose what is asked.
  server.keepAliveTimeout = 75_000;
  const port = await listen(server, at.host, settings.PORT);
  const address = at.origin ?? `http://${at.host.includes(':') ? `[${at.host}]` : at.host}:${port}`;
  return {
    address,
    port,
    firstLink: at.hasAccounts ? await firstLink(door.whole, address) : null,
    services,
    door,
    inside,
    pool,
    async stop() {
      isLeaving = true;
      streams.close();
      await closeGently(server, answerWithinMs);
      sessions?.stop();
      await listening.stop();
      await stop();
    },
  };
}

export interface RunningWorker {
  worker: Worker;
  stop(): Promise<void>;
}

/** Starts to do what there is to do. @param bounds by default what suits the machine */
export async function startWorker(
  settings: Settings,
  bounds: WorkerSettings = readWorkerSettings({}),
  backups: BackupSettings = readBackupSettings({}),
): Promise<RunningWorker> {
  const { log, whole, close, decoders, copies, workspaces, recent } = await openGround(settings);
  const worker = new Worker(
    settings.DATABASE_URL,
    {
      whole,
      workspaces,
      copies,
      recent,
      isLooking: settings.INKWELL_LOOK === 'on',
      hookHosts: hookHosts(settings),
      mailing: mailingOf(settings),
      accounts: () => readAccounts(networksFile(settings.INKWELL_DATA)),
      log,
    },
    { jobs: bounds.INKWELL_JOBS, mostPixels: bounds.INKWELL_PIXELS * 1e6 },
  );
  const passphrase = backups.INKWELL_BACKUP_PASSPHRASE ?? null;
  const schedule = new BackupSchedule(settings.DATABASE_URL, whole, planOf(backups), passphrase, log);
  const telling = bounds.INKWELL_METRICS === undefined ? null : await tellOfWorker(worker, bounds.INKWELL_METRICS);
  return {
    worker,
    async stop() {
      schedule.stop();
      await worker.stop(bounds.INKWELL_DRAIN * 1000);
      await telling?.stop();
      decoders.end();
      await close();
    },
  };
}

/** Starts the simulated networks. The program knows of them what stands in their file, as of any network. */
export async function startNetworks(settings: Settings): Promise<RunningStandIns> {
  await mkdir(settings.INKWELL_DATA, { recursive: true });
  const log = openLog(join(settings.INKWELL_DATA, 'networks.log'), settings.LOG_LEVEL);
  const networks = networkSheets(settings.INKWELL_NETWORKS ?? null);
  return startStandIns(settings.DATABASE_URL, networksFile(settings.INKWELL_DATA), networks, log);
}

/** Both in one process, as tests have them. */
export async function start(settings: Settings): Promise<RunningServer & Pick<RunningWorker, 'worker'>> {
  const server = await startServer(settings);
  const { worker, stop } = await startWorker(settings);
  return {
    ...server,
    worker,
    async stop() {
      await stop();
      await server.stop();
    },
  };
}

/** Listens at an address, on the first free port from `wanted` on. */
async function listen(server: Server, host: string, wanted: number): Promise<number> {
  for (let port = wanted; port < wanted + portsTried; port += 1) {
    try {
      await new Promise<void>((resolve, reject) => {
        server.once('error', reject);
        server.listen(port, host, () => {
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
