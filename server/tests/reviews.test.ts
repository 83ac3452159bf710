import { MadeReviewSchema, OpenReviewSchema, ReviewSchema } from '@inkwell/core/model';
import sharp from 'sharp';
import { expect, test } from 'vitest';
import { z } from 'zod';
import { doorResources, resources } from '../api/resources/index.ts';
import { runSql } from '../testing/databases.ts';
import { chart } from '../testing/pictures/pictures.ts';
import { Browser } from '../testing/programs/browser.ts';
import { startStudio } from '../testing/programs/studio.ts';

const { owner, programOf, settings, ...running } = await startStudio();
const client = await programOf(owner);
const original = await client.original(await chart(600, 400).png().toBuffer(), 'kites.png');
const places = ['sunpane/square-post', 'sunpane/story', 'pipwire/profile-picture'];
const project = await client.project('Festival week', [original], places);
const other = await client.project('Not for clients', [original], ['sunpane/story']);

/** Somebody who has a link, and nothing else. */
async function byLink() {
  const { body } = await client.ask('POST', '/reviews', { projectId: project.id, name: 'Marsh café', days: 7 });
  const { review, link } = MadeReviewSchema.parse(body);
  expect(link).toMatch(new RegExp(`^${running.address}/review#`));
  const secret = new URL(link).hash.slice(1);
  return { review, guest: new Browser(running.address, { 'X-Inkwell-Review': secret }) };
}
const said = async () =>
  z.array(ReviewSchema).parse((await client.ask('GET', `/reviews?projectId=${project.id}`)).body);

test('whoever has the link sees the frames as they will be delivered, and what they say reaches the studio', async () => {
  const { guest, review } = await byLink();
  const opened = await guest.read(OpenReviewSchema, '/reviews/opened');
  expect(opened).toMatchObject({ project: 'Festival week', workspace: 'Studio', name: 'Marsh café' });
  expect(opened.frames.map(({ network, place }) => `${network} ${place}`).sort()).toEqual([
    'Pipwire Profile picture',
    'Sunpane Square post',
    'Sunpane Story',
  ]);
  const [frame] = opened.frames;
  if (!frame) throw new Error('Nothing is shown.');
  const address = `/reviews/opened/frames/${frame.id}`;
  const answer = await guest.ask('POST', address, {
    answer: 'look again',
    word: ' A bit higher. ',
    planHash: frame.planHash,
  });
  expect(answer.status).toBe(204);
  expect((await said())[0]).toMatchObject({
    id: review.id,
    name: 'Marsh café',
    madeBy: 'Runa Holm',
    holds: true,
    answers: [{ frameId: frame.id, answer: 'look again', word: 'A bit higher.', planHash: frame.planHash }],
  });
  // Said again, it is what was said last.
  await guest.ask('POST', address, { answer: 'fine', planHash: frame.planHash });
  expect((await said())[0]?.answers).toMatchObject([{ answer: 'fine', word: '' }]);
  // Of what has changed meanwhile nothing is said, and what was said is known to be of something older.
  const { frames: own } = await client.open(project.id);
  const version = own.find(({ id }) => id === frame.id)?.version;
  const change = { finishId: 'crisp' };
  expect((await client.ask('PATCH', `/frames/${frame.id}`, { version, change })).status).toBe(200);
  const late = await guest.ask('POST', address, { answer: 'fine', planHash: frame.planHash });
  expect(late).toMatchObject({ status: 409 });
  const now = (await guest.read(OpenReviewSchema, '/reviews/opened')).frames.find(({ id }) => id === frame.id);
  expect(now).toMatchObject({ answer: { answer: 'fine', planHash: frame.planHash } });
  expect(now?.planHash).not.toBe(frame.planHash);
  // What is left out is not delivered, and not shown.
  const [shown] = (await client.open(project.id)).frames;
  await client.ask('PATCH', `/frames/${shown?.id}`, {
    version: shown?.version,
    change: { verdict: { is: 'leave out', plan: 'x' } },
  });
  expect((await guest.read(OpenReviewSchema, '/reviews/opened')).frames.map(({ id }) => id)).not.toContain(shown?.id);
});

test('a picture comes as small as it is asked for, and none of another project, nor an original', async () => {
  const { review, guest } = await byLink();
  const { body } = await client.ask('POST', '/reviews', { projectId: project.id, name: 'Again', days: 1 });
  const secret = new URL(MadeReviewSchema.parse(body).link).hash.slice(1);
  const opened = await guest.read(OpenReviewSchema, '/reviews/opened');
  const [frame] = opened.frames;
  const picture = async (id: string, plan: string, width: number) =>
    fetch(`${running.address}/api/v1/reviews/opened/frames/${id}/picture?plan=${plan}&width=${width}`, {
      headers: { 'X-Inkwell-Review': secret },
    });
  const response = await picture(frame?.id ?? '', frame?.planHash ?? '', 240);
  expect(response.headers.get('cache-control')).toContain('private');
  expect(await sharp(Buffer.from(await response.arrayBuffer())).metadata()).toMatchObject({ width: 240 });
  expect((await picture(frame?.id ?? '', frame?.planHash ?? '', 4000)).status).toBe(400);
  const [foreign] = await client.weights(other.id);
  expect((await picture(foreign?.frameId ?? '', foreign?.planHash ?? '', 240)).status).toBe(404);
  const answer = { answer: 'fine', planHash: foreign?.planHash };
  expect((await guest.ask('POST', `/reviews/opened/frames/${foreign?.frameId}`, answer)).status).toBe(404);
  // Nothing else is reached by it, by whatever route.
  const routes = [...resources(running.services), ...doorResources(running.door, running.inside)];
  for (const { method, path, contract } of routes.flatMap((one) => one.routes)) {
    if (contract.isOpen) continue;
    const at = path.replace(':id', original.id).replace(/:\w+/g, 'x');
    const sent = method === 'get' || contract.file ? undefined : {};
    expect([path, (await guest.ask(method.toUpperCase(), at, sent)).status]).toEqual([path, 401]);
  }
  // Withdrawn or over, it opens nothing any more; and nobody guesses one.
  expect((await client.ask('DELETE', `/reviews/${review.id}`)).status).toBe(204);
  expect(await guest.ask('GET', '/reviews/opened')).toMatchObject({ status: 404 });
  expect((await client.ask('DELETE', `/reviews/${review.id}`)).status).toBe(404);
  await runSql(settings.DATABASE_URL, `update reviews set ends_at = now() - interval '1 second' where name = 'Again'`);
  expect((await picture(frame?.id ?? '', frame?.planHash ?? '', 240)).status).toBe(404);
  expect(await new Browser(running.address).ask('GET', '/reviews/opened')).toMatchObject({ status: 404 });
  expect((await said()).map(({ holds }) => holds)).toEqual([false, false, true]);
});
