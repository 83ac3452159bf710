import { execFile } from 'node:child_process';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { demoFrames, demoSettings } from '@inkwell/demo/project.ts';
import { decodeCopy } from '@inkwell/server/imaging/intake/decoding.ts';
import { Decoders } from '@inkwell/server/imaging/intake/processes/decoders.ts';
import { shippedPlaces } from '@inkwell/server/standins/shippedSheets.ts';
import type { Client } from '@inkwell/server/testing/programs/client.ts';
import { z } from 'zod';
import { median, oneShots, twelvePlans } from './inProcess.ts';
import type { Program } from './program.ts';

const rounds = 7;
const people = 20;
/** How often one looks whether a delivery is over. */
const everyMs = 10;
/** What those who move a window read of a project and its plans: people read it on machines of their own. */
const HashesSchema = z.array(z.object({ frameId: z.string(), planHash: z.string() }));
const FramesSchema = z.object({
  frames: z.array(z.object({ id: z.string(), version: z.int(), window: z.looseObject({}) })),
});

const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

async function secondsOf(task: () => Promise<unknown>): Promise<number> {
  const began = performance.now();
  await task();
  return (performance.now() - began) / 1000;
}

/** The demo's five flyers in their first twelve places, as a project of the running program. */
async function twelveFrames(client: Client, picture: string) {
  const original = await client.file(picture);
  const places = shippedPlaces();
  const add = (demoFrames.find((one) => one.picture === 'flyers')?.frames ?? []).slice(0, 12).flatMap((frame) => {
    const place = places.get(frame[0])?.place;
    return place
      ? [{ originalId: original.id, placeId: frame[0], settings: demoSettings(frame, original, place) }]
      : [];
  });
  const { id, frames } = await client.projectOf('Bench', [original], add);
  await client.measured(id);
  return { id, original, frames };
}

export interface DeliveryTimes {
  files: number;
  /** Seconds until the archive is there, of one-shot pipelines, and the median of the rounds' ratios. */
  ours: number;
  baseline: number;
  ratio: number;
}

/** Twelve measured frames delivered over HTTP, against twelve one-shot sharp pipelines to the same places. */
export async function measuredDelivery({ client }: Program, picture: string): Promise<DeliveryTimes> {
  const { id } = await twelveFrames(client, picture);
  const plans = await twelvePlans(picture);
  const first = await client.deliver(id);
  const seen = await client.seen(id);
  const qualities = plans.map(() => 90);
  const times: { ours: number; baseline: number }[] = [];
  for (let round = 0; round < rounds; round += 1) {
    times.push({
      ours: await secondsOf(async () => {
        const { id: delivery } = await client.delivered(await client.askDelivery(id, undefined, seen), everyMs);
        await client.bytes(`/deliveries/${delivery}/archive`);
      }),
      baseline: await secondsOf(() => oneShots(picture, plans, qualities)),
    });
  }
  return {
    files: first.files.length,
    ours: median(times.map(({ ours }) => ours)),
    baseline: median(times.map(({ baseline }) => baseline)),
    ratio: median(times.map(({ ours, baseline }) => ours / baseline)),
  };
}

export interface LoadFigures {
  /** Milliseconds, p95, of listing the projects: at rest, with people who look for a second at what they see, and without that second. */
  quiet: number;
  looking: number;
  hurried: number;
  /** MB of all processes: warm and at rest, at most, and a minute after. */
  before: number;
  most: number;
  after: number;
}

/** The p95 of listing the projects for some seconds, in milliseconds. */
async function listingFor(program: Program, seconds: number): Promise<number> {
  const script = join(import.meta.dirname, 'listing.ts');
  const said = await promisify(execFile)(process.execPath, [
    '--import',
    'tsx',
    script,
    program.client.address,
    `${seconds}`,
  ]);
  return Number(said.stdout);
}

/** Twenty people who each move a window and look at its proof, for a minute and a half in all, while one lists the projects. */
export async function underLoad(program: Program, picture: string): Promise<LoadFigures> {
  const { client } = program;
  const { id, original, frames } = await twelveFrames(client, picture);
  const quiet = await listingFor(program, 10);
  const before = program.megabytes();

  const person = async (index: number, over: () => boolean, lookMs: number) => {
    const frame = frames[index % frames.length];
    if (!frame) return;
    for (let step = index; !over(); step += people) {
      const centreX = original.width * ((step * 0.377) % 1);
      const open = FramesSchema.parse((await client.ask('GET', `/projects/${id}`)).body);
      const now = open.frames.find((one) => one.id === frame.id) ?? frame;
      const window = { ...now.window, centreX };
      await client.ask('PATCH', `/frames/${frame.id}`, { version: now.version, change: { window, composed: false } });
      const all = HashesSchema.parse((await client.ask('GET', `/projects/${id}/measured`)).body);
      const plan = all.find(({ frameId }) => frameId === frame.id)?.planHash;
      // Of two people at one frame, one may hear that it has changed meanwhile: that is an answer as well.
      await (await fetch(`${client.address}/api/v1/frames/${frame.id}/proof?plan=${plan}&width=448`)).arrayBuffer();
      await pause(lookMs);
    }
  };
  const withPeople = async (lookMs: number) => {
    let isOver = false;
    const all = Array.from({ length: people }, (_, index) => person(index, () => isOver, lookMs));
    const listing = listingFor(program, 45).finally(() => {
      isOver = true;
    });
    const [p95] = await Promise.all([listing, ...all]);
    return p95;
  };
  const looking = await withPeople(1000);
  const hurried = await withPeople(0);
  await client.measured(id);
  const most = program.peakMegabytes();
  await pause(60_000);
  return { quiet, looking, hurried, before, most, after: program.megabytes() };
}

/** A 24-megapixel JPEG decoded by a process that stays warm, against the same work in this process. */
export async function intakeTimes(picture: string): Promise<{ ours: number; baseline: number; ratio: number }> {
  const folder = await mkdtemp(join(tmpdir(), 'inkwell-bench-'));
  const decoders = new Decoders();
  try {
    const times: { ours: number; baseline: number }[] = [];
    for (let round = 0; round <= rounds; round += 1) {
      const to = (side: string) => join(folder, `${side}${round}`);
      const baseline = await secondsOf(() => decodeCopy(picture, 0, to('here')));
      const ours = await secondsOf(() => decoders.copy({ path: picture, page: 0, to: to('apart') }));
      // The first round warms both.
      if (round > 0) times.push({ ours, baseline });
      await Promise.all(['here', 'apart'].map((side) => rm(to(side), { recursive: true })));
    }
    return {
      ours: median(times.map(({ ours }) => ours)),
      baseline: median(times.map(({ baseline }) => baseline)),
      ratio: median(times.map(({ ours, baseline }) => ours / baseline)),
    };
  } finally {
    decoders.end();
    await rm(folder, { recursive: true, force: true });
  }
}
