import { execFileSync, spawn } from 'node:child_process';
import { existsSync, readdirSync } from 'node:fs';
import { mkdir, mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir, userInfo } from 'node:os';
import { join } from 'node:path';
import { Cluster, type ClusterAt } from '@inkwell/server/testing/cluster.ts';
import { Campaign, victims } from '@inkwell/server/testing/faults/campaign.ts';
import { memoryOf } from './program.ts';

const kills = Number(process.env.INKWELL_FAULTS ?? 200);
const minuteMs = 60_000;
/** For so long people work while memory is looked at. */
const memoryMinutes = 10;
/** Where the database is on the other side of a line that loses packets. */
const line = { here: '10.77.0.1', there: '10.77.0.2', net: '10.77.0.0/24', lost: 0.03 };

const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
const isRoot = userInfo().uid === 0;
const run = (command: string, ...words: string[]) => execFileSync(command, words, { stdio: 'ignore' });

/** What people saw of a fault. */
interface Seen {
  fault: string;
  /** How often it came, or how long it lasted. */
  size: string;
  answered: number;
  refused: number;
  broken: number;
  /** Seconds: the longest that nobody got an answer. */
  longest: number;
  wrongs: string[];
}

/** Lets five people work while something goes wrong, and looks afterwards whether all is there. */
async function seenOf(
  fault: string,
  size: string,
  campaign: Campaign,
  during: (campaign: Campaign) => Promise<void>,
): Promise<Seen> {
  console.log(`${fault} …`);
  campaign.begin();
  let [last, answered, longest] = [performance.now(), 0, 0];
  const watching = setInterval(() => {
    if (campaign.answered > answered) {
      answered = campaign.answered;
      last = performance.now();
    }
    longest = Math.max(longest, performance.now() - last);
  }, 50);
  try {
    await during(campaign);
    await campaign.untilAnswered(campaign.answered + 50);
  } finally {
    clearInterval(watching);
    await campaign.rest();
  }
  const wrongs = [...new Set(await campaign.verify())];
  for (const wrong of wrongs) console.log(`  ${wrong}`);
  const sum = (what: 'answered' | 'refused' | 'broken') =>
    campaign.people.reduce((all, { counts }) => all + counts[what], 0);
  return {
    fault,
    size,
    answered: sum('answered'),
    refused: sum('refused'),
    broken: sum('broken'),
    longest: longest / 1000,
    wrongs,
  };
}

/** The same on a cluster and with processes of its own, which are gone afterwards. */
async function withCampaign(
  { at = {}, env = {} }: { at?: ClusterAt; env?: NodeJS.ProcessEnv },
  task: (campaign: Campaign) => Promise<Seen>,
): Promise<Seen> {
  const cluster = await Cluster.make(at);
  try {
    const campaign = await Campaign.start(cluster, env);
    try {
      return await task(campaign);
    } finally {
      await campaign.end();
    }
  } finally {
    await cluster.destroy();
  }
}

const killed = (): Promise<Seen> =>
  withCampaign({}, (one) =>
    seenOf('killed: server, worker, decoder, backend, postmaster', `${kills} times`, one, async (campaign) => {
      for (let kill = 0; kill < kills; kill += 1) {
        await campaign.untilAnswered(campaign.answered + 3 + Math.floor(Math.random() * 30));
        const victim = victims[kill % victims.length];
        if (victim && !(await campaign.strike(victim))) throw new Error(`There was no ${victim} to kill.`);
      }
    }),
  );

const databaseAway = (): Promise<Seen> =>
  withCampaign({}, (one) =>
    seenOf('the database is away', 'a minute', one, async (campaign) => {
      await pause(5000);
      campaign.cluster.stop();
      await pause(minuteMs);
      campaign.cluster.start();
    }),
  );

/** All that PostgreSQL and the server write to files waits a little, by the system's own tool for that. */
const slowDisk = (): Promise<Seen> =>
  withCampaign({}, (one) =>
    seenOf('a slow disk', '20 ms more for each write, a minute', one, async (campaign) => {
      const writes = 'pwrite64,pwritev,fsync,fdatasync';
      const pids = [await campaign.cluster.postmaster(), ...campaign.pids];
      const tracing = spawn(
        'strace',
        ['-f', '-qq', '-o', '/dev/null', '-e', `trace=${writes}`, '-e', `inject=${writes}:delay_enter=20000`].concat(
          pids.flatMap((pid) => ['-p', String(pid)]),
        ),
        { stdio: 'ignore' },
      );
      await pause(minuteMs);
      tracing.kill('SIGINT');
    }),
  );

/** The disk of the database and that of the server have room for a little, then for nothing, then again. */
async function fullDisk(): Promise<Seen> {
  const folder = await mkdtemp(join(tmpdir(), 'inkwell-full-'));
  run('mount', '-t', 'tmpfs', '-o', 'size=400m', 'none', folder);
  try {
    await mkdir(join(folder, 'cluster'), { mode: 0o755 });
    await mkdir(join(folder, 'data'));
    return await withCampaign(
      { at: { folder: join(folder, 'cluster') }, env: { INKWELL_DATA: join(folder, 'data') } },
      (one) =>
        seenOf('a full disk, of database and server', 'three times 15 s', one, async () => {
          for (let time = 0; time < 3; time += 1) {
            await pause(5000);
            const ballast = join(folder, 'ballast');
            // Until nothing more fits.
            await writeFile(ballast, Buffer.alloc(400_000_000)).catch(() => undefined);
            await pause(15_000);
            await rm(ballast);
          }
        }),
    );
  } finally {
    run('umount', folder);
    await rm(folder, { recursive: true });
  }
}

const faketimeLibrary = () =>
  readdirSync('/usr/lib')
    .map((machine) => `/usr/lib/${machine}/faketime/libfaketime.so.1`)
    .find((path) => existsSync(path));

/** The clock of server and workers jumps forth and back; that of the database stays. */
async function clockJumps(): Promise<Seen> {
  const folder = await mkdtemp(join(tmpdir(), 'inkwell-clock-'));
  const clock = join(folder, 'clock');
  await writeFile(clock, '+0');
  const env = {
    LD_PRELOAD: faketimeLibrary(),
    FAKETIME_TIMESTAMP_FILE: clock,
    FAKETIME_NO_CACHE: '1',
    FAKETIME_DONT_FAKE_MONOTONIC: '1',
  };
  const jumps = ['+1h', '-1h', '+20h', '-3d', '+0'];
  return withCampaign({ env }, (one) =>
    seenOf('the clock jumps', jumps.join(', '), one, async ({ people }) => {
      for (const person of people) person.mayBeSignedOut = true;
      for (const jump of jumps) {
        await pause(8000);
        await writeFile(clock, jump);
      }
      await pause(8000);
    }),
  );
}

/** The database lives on another host, a network namespace, and every so many-th packet is lost on the way, in both directions. */
async function lostPackets(): Promise<Seen> {
  const name = 'inkwell-far';
  const inside = (...words: string[]) => run('ip', 'netns', 'exec', name, ...words);
  run('ip', 'netns', 'add', name);
  try {
    run('ip', 'link', 'add', 'inkwell-a', 'type', 'veth', 'peer', 'name', 'inkwell-b');
    run('ip', 'link', 'set', 'inkwell-b', 'netns', name);
    run('ip', 'addr', 'add', `${line.here}/24`, 'dev', 'inkwell-a');
    run('ip', 'link', 'set', 'inkwell-a', 'up');
    inside('ip', 'addr', 'add', `${line.there}/24`, 'dev', 'inkwell-b');
    inside('ip', 'link', 'set', 'inkwell-b', 'up');
    inside('ip', 'link', 'set', 'lo', 'up');
    const within = ['ip', 'netns', 'exec', name];
    return await withCampaign({ at: { host: { address: line.there, net: line.net, within } } }, (one) =>
      seenOf('packets are lost', `${100 * line.lost} % in each direction, a minute`, one, async () => {
        for (const chain of ['INPUT', 'OUTPUT']) {
          inside(
            'iptables',
            '-A',
            chain,
            '-m',
            'statistic',
            '--mode',
            'random',
            '--probability',
            `${line.lost}`,
            '-j',
            'DROP',
          );
        }
        await pause(minuteMs);
      }),
    );
  } finally {
    run('ip', 'netns', 'del', name);
  }
}

/** All that goes wrong. */
const faults = { killed, databaseAway, slowDisk, fullDisk, clockJumps, lostPackets };

/** Megabytes of server and workers, warm and after some minutes in which five people have worked. */
async function memoryGrown(): Promise<{ before: number; after: number }> {
  console.log('Memory …');
  const cluster = await Cluster.make();
  const campaign = await Campaign.start(cluster);
  try {
    campaign.begin();
    await pause(minuteMs);
    const before = memoryOf(campaign.pids) / 1e6;
    await pause(memoryMinutes * minuteMs);
    const after = memoryOf(campaign.pids) / 1e6;
    return { before, after };
  } finally {
    await campaign.end();
    await cluster.destroy();
  }
}

/** Five people work while all that can goes wrong, as a section of the results. @throws where this machine lets it do less */
export async function faultsSection(): Promise<string> {
  const missing = ['/usr/bin/strace', '/usr/sbin/iptables', '/usr/sbin/ip'].filter((path) => !existsSync(path));
  if (!isRoot || missing.length > 0 || !faketimeLibrary()) {
    throw new Error(
      'This needs root, and the packages strace, iptables, iproute2 and faketime: ./inkwell faults installs them.',
    );
  }
  const all: Seen[] = [];
  for (const fault of Object.values(faults)) all.push(await fault());
  const { before, after } = await memoryGrown();
  const rows = all.map(
    ({ fault, size, answered, refused, broken, longest, wrongs }) =>
      `| ${fault} | ${size} | ${answered} | ${refused} | ${broken} | ${longest.toFixed(1)} s | **${wrongs.length}** |`,
  );
  return `## Faults
Five people in two workspaces bring pictures in, move windows, deliver and look who they are, all at once, while something goes wrong; what of the
program ends is started again. Wrong is: what was answered with success and is not there afterwards, a session or a workspace that shows another's, an
answer 500, an answer that is not what it says, work that fails or stays, a start that does not succeed. None may be.

| fault | how much | answered with success | refused in words | no answer | longest without any | wrong |
|---|---|---|---|---|---|---|
${rows.join('\n')}

| memory of server and two workers, after a minute of that work | after ${memoryMinutes} more | ratio | aim |
|---|---|---|---|
| ${before.toFixed(0)} MB | ${after.toFixed(0)} MB | **${(after / before).toFixed(2)}** | at most 1.5 |
`;
}
