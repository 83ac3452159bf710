import { mkdtemp, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { largestWindow, placeDimensions, wholeOf } from '@inkwell/core/geometry';
import { MadeInvitationSchema, MadeTokenSchema, OwnSharesSchema, plainSettings } from '@inkwell/core/model';
import { shippedPlaces } from '@inkwell/server/standins/shippedSheets.ts';
import { openDatabase } from '@inkwell/server/store/database.ts';
import { firstLink } from '@inkwell/server/tasks/access/invitations.ts';
import { databaseServer, dropDatabase, ownDatabase } from '@inkwell/server/testing/databases.ts';
import { Browser } from '@inkwell/server/testing/programs/browser.ts';
import { Client, until } from '@inkwell/server/testing/programs/client.ts';
import { startProcesses } from '@inkwell/server/testing/programs/processes.ts';
import sharp from 'sharp';
import { z } from 'zod';

const imported = 400;
/** The machine is shared with others: both sides take turns. */
const rounds = 4;
/** As many as a page sends at a time. */
const sentAtOnce = 2;
/** Between two changes of a person who looks at what came of them. */
const lookMs = 250;
const idleProofs = 40;
const password = 'quilted lantern over marsh';
const HashesSchema = z.array(z.object({ frameId: z.string(), planHash: z.string() }));

const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
const p95 = (times: readonly number[]) =>
  times.toSorted((a, b) => a - b)[Math.floor(times.length * 0.95)] ?? Number.NaN;

/** Two people of one studio, each as a program with a token. */
async function twoPeople(address: string, database: string): Promise<[a: Client, b: Client]> {
  const { whole, close } = await openDatabase(database);
  const link = z.string().parse(await firstLink(whole, address));
  await close();
  const owner = new Browser(address);
  await owner.accept(link, 'Runa Holm', password, 'runa@saltmarsh.example');
  const invited = await owner.ask('POST', '/invitations', { email: 'ida@saltmarsh.example', role: 'editor' });
  const other = new Browser(address);
  await other.accept(MadeInvitationSchema.parse(invited.body).link, 'Ida Berg', password);
  const clientOf = async (browser: Browser) => {
    const { body } = await browser.ask('POST', '/tokens', { name: 'bench', may: 'change', days: null });
    return new Client(address, { Authorization: `Bearer ${MadeTokenSchema.parse(body).secret}` });
  };
  return [await clientOf(other), await clientOf(owner)];
}

/** Pictures that are each another file: 12 megapixels with some bytes behind their end. */
async function pictureOf(picture: string): Promise<(index: number) => Buffer> {
  const data = await sharp(await readFile(picture))
    .resize(4000, 3000, { fit: 'cover' })
    .jpeg({ quality: 90 })
    .toBuffer();
  return (index) => Buffer.concat([data, Buffer.from(`kite ${index}`)]);
}

/** A project with one frame of a picture, when all is known of it. */
async function projectOf(client: Client, picture: string) {
  const placeId = 'sunpane/portrait-post';
  const place = shippedPlaces().get(placeId)?.place;
  if (!place) throw new Error('The spec book has this place.');
  const original = await client.file(picture);
  const window = largestWindow(wholeOf(original), placeDimensions(place, original));
  const settings = { ...plainSettings, window, composed: false, format: 'jpeg' as const };
  const { id, frames } = await client.projectOf('Proofs', [original], [{ originalId: original.id, placeId, settings }]);
  const [frame] = frames;
  if (!frame) throw new Error('There is a frame.');
  await client.looked(id);
  await client.measured(id);
  return { client, id, frame, window, width: original.width, version: frame.version };
}

/** Changes a window again and again, and looks at the proof of it. @returns milliseconds from the change to the proof */
async function proofs(of: Awaited<ReturnType<typeof projectOf>>, over: (done: number) => boolean): Promise<number[]> {
  const { client, id, frame, window, width } = of;
  const times: number[] = [];
  while (!over(times.length)) {
    const centreX = width * (0.3 + 0.4 * ((times.length * 0.377) % 1));
    const began = performance.now();
    const saved = await client.ask('PATCH', `/frames/${frame.id}`, {
      version: of.version,
      change: { window: { ...window, centreX, span: window.span * 0.8 }, composed: false },
    });
    of.version = z.object({ version: z.int() }).parse(saved.body).version;
    const all = HashesSchema.parse((await client.ask('GET', `/projects/${id}/measured`)).body);
    await client.bytes(`/frames/${frame.id}/proof?plan=${all[0]?.planHash}&width=448`);
    times.push(performance.now() - began);
    await pause(lookMs);
  }
  return times;
}

/** Brings a part of the pictures in, some at a time. @throws where one does not come in */
async function bringIn(client: Client, one: (index: number) => Buffer, round: number): Promise<void> {
  const last = ((round + 1) * imported) / rounds;
  let next = (round * imported) / rounds;
  const sending = async () => {
    while (next < last) {
      const index = next;
      next += 1;
      const { status } = await client.sendFile('/originals', one(index), `${index}.jpg`);
      if (status !== 201) throw new Error(`A picture was answered with ${status}.`);
    }
  };
  await Promise.all(Array.from({ length: sentAtOnce }, sending));
}

/** Waits until nothing of what somebody asked for is left to do. */
const allLooked = (client: Client) =>
  until(
    async () => OwnSharesSchema.parse((await client.ask('GET', '/shares')).body),
    ({ workspace }) => workspace.used.jobs === 0,
    1800,
    500,
  );

/** One person works while another brings in hundreds of pictures, as a section of the results. */
export async function sharingSection(picture: string): Promise<string> {
  const folder = await mkdtemp(join(tmpdir(), 'inkwell-bench-'));
  const database = await ownDatabase(databaseServer(), 'inkwell_bench');
  const env = { ...process.env, DATABASE_URL: database, INKWELL_DATA: folder, PORT: '4690', INKWELL_ACCOUNTS: 'on' };
  const running = await startProcesses(env);
  try {
    const [a, b] = await twoPeople(running.client.address, database);
    const one = await pictureOf(picture);
    const project = await projectOf(b, picture);
    // What is warm later is warm from the beginning.
    await proofs(project, (done) => done >= idleProofs);
    const [idle, loaded]: [number[], number[]] = [[], []];
    let seconds = 0;
    for (let round = 0; round < rounds; round += 1) {
      idle.push(...(await proofs(project, (done) => done >= idleProofs)));
      const began = performance.now();
      let isOver = false;
      const importing = bringIn(a, one, round).finally(() => {
        isOver = true;
      });
      loaded.push(...(await proofs(project, () => isOver)));
      await importing;
      seconds += (performance.now() - began) / 1000;
      await allLooked(a);
    }
    return `## Sharing
One person moves a window of a 24-megapixel picture, saves it and looks at its proof at 448 px; meanwhile another brings in ${imported} pictures of 12
megapixels, ${sentAtOnce} at a time as a page does, which are decoded, kept and looked at; in ${rounds} rounds, for which both sides took turns. They came in within ${seconds.toFixed(0)} s.

| | proofs | median | p95 | ratio of p95 | aim |
|---|---|---|---|---|---|
| nobody else | ${idle.length} | ${p50(idle)} ms | ${p95(idle).toFixed(0)} ms | | |
| while pictures come in | ${loaded.length} | ${p50(loaded)} ms | ${p95(loaded).toFixed(0)} ms | **${(p95(loaded) / p95(idle)).toFixed(2)}** | at most 1.5 |
`;
  } finally {
    await running.stop();
    await dropDatabase(database);
    await rm(folder, { recursive: true, force: true });
  }
}

const p50 = (times: readonly number[]) =>
  (times.toSorted((x, y) => x - y)[Math.floor(times.length / 2)] ?? Number.NaN).toFixed(0);
