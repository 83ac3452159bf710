import { execFile } from 'node:child_process';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { type Delivery, DeliverySchema, OpenProjectSchema } from '@inkwell/core/model';
import { demoFrames, demoSettings } from '@inkwell/demo/project.ts';
import { decodeCopy } from '@inkwell/server/imaging/intake/decoding.ts';
import { Decoders } from '@inkwell/server/imaging/intake/processes/decoders.ts';
import { shippedPlaces } from '@inkwell/server/standins/shippedSheets.ts';
import { z } from 'zod';
import { median, oneShots, twelvePlans } from './inProcess.ts';
import type { Program } from './throughServer.ts';

const rounds = 7;
const people = 20;
const MeasuredSchema = z.array(z.object({ frameId: z.string(), planHash: z.string(), weight: z.unknown() }));

/** What those who move a window read of a project: people read it on machines of their own. */
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
async function twelveFrames(program: Program, picture: string) {
  const original = await program.upload(picture);
  const { id } = OpenProjectSchema.parse(await program.ask('POST', '/projects', { name: 'Bench' }));
  await program.ask('POST', `/projects/${id}/originals`, { add: [original.id] });
  const places = shippedPlaces();
  const add = (demoFrames.find((one) => one.picture === 'flyers')?.frames ?? []).slice(0, 12).flatMap((frame) => {
    const place = places.get(frame[0])?.place;
    return place
      ? [{ originalId: original.id, placeId: frame[0], settings: demoSettings(frame, original, place) }]
      : [];
  });
  const { frames } = OpenProjectSchema.parse(await program.ask('POST', `/projects/${id}/frames`, { add }));
  return { id, original, frames };
}

/** The plans of all frames, once all are measured. */
export async function measured(program: Program, id: string): Promise<{ frameId: string; plan: string }[]> {
  for (;;) {
    const all = MeasuredSchema.parse(await program.ask('GET', `/projects/${id}/measured`));
    if (all.every(({ weight }) => weight)) return all.map(({ frameId, planHash }) => ({ frameId, plan: planHash }));
    await pause(500);
  }
}

/** A delivery of what was seen, once its archive is there. @throws where it ends otherwise */
export async function delivered(program: Program, projectId: string, seen: unknown): Promise<Delivery> {
  let delivery = DeliverySchema.parse(await program.ask('POST', '/deliveries', { projectId, seen }));
  while (delivery.state === 'waiting' || delivery.state === 'working') {
    await pause(10);
    delivery = DeliverySchema.parse(await program.ask('GET', `/deliveries/${delivery.id}`));
  }
  if (delivery.state !== 'done') throw new Error(`A delivery ended as ${delivery.state}.`);
  return delivery;
}

export interface DeliveryTimes {
  files: number;
  /** Seconds until the archive is there, of one-shot pipelines, and the median of the rounds' ratios. */
  ours: number;
  baseline: number;
  ratio: number;
}

/** Twelve measured frames delivered over HTTP, against twelve one-shot sharp pipelines to the same places. */
export async function measuredDelivery(program: Program, picture: string): Promise<DeliveryTimes> {
  const { id } = await twelveFrames(program, picture);
  const seen = await measured(program, id);
  const plans = await twelvePlans(picture);
  const first = await delivered(program, id, seen);
  const qualities = plans.map(() => 90);
  const times: { ours: number; baseline: number }[] = [];
  for (let round = 0; round < rounds; round += 1) {
    times.push({
      ours: await secondsOf(() => delivered(program, id, seen)),
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
  const said = await promisify(execFile)(process.execPath, ['--import', 'tsx', script, program.address, `${seconds}`]);
  return Number(said.stdout);
}

/** Twenty people who each move a window and look at its proof, for a minute and a half in all, while one lists the projects. */
export async function underLoad(program: Program, picture: string): Promise<LoadFigures> {
  const { id, original, frames } = await twelveFrames(program, picture);
  await measured(program, id);
  const quiet = await listingFor(program, 10);
  const before = program.megabytes();

  const person = async (index: number, over: () => boolean, lookMs: number) => {
    const frame = frames[index % frames.length];
    if (!frame) return;
    for (let step = index; !over(); step += people) {
      const centreX = original.width * ((step * 0.377) % 1);
      const open = FramesSchema.parse(await program.ask('GET', `/projects/${id}`));
      const now = open.frames.find((one) => one.id === frame.id) ?? frame;
      const window = { ...now.window, centreX };
      await program.ask('PATCH', `/frames/${frame.id}`, { version: now.version, change: { window, composed: false } });
      const all = MeasuredSchema.parse(await program.ask('GET', `/projects/${id}/measured`));
      const plan = all.find(({ frameId }) => frameId === frame.id)?.planHash;
      await program.fetchBytes(`/frames/${frame.id}/proof?plan=${plan}&width=448`);
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
  await measured(program, id);
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
