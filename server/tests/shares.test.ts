import { AllSharesSchema, OwnSharesSchema, type Share, wholeShare } from '@inkwell/core/model';
import { expect, test } from 'vitest';
import { noise } from '../testing/pictures/pictures.ts';
import { type Answer, until } from '../testing/programs/client.ts';
import { startStudio } from '../testing/programs/studio.ts';

const { owner, comeAs, programOf, workspace } = await startStudio();
const ida = await comeAs('editor', 'Ida');
const program = await programOf(ida);
const { id: idaId } = (await ida.person()) ?? { id: '' };
const all = () => owner.read(AllSharesSchema, '/shares/all');
const own = () => ida.read(OwnSharesSchema, '/shares');
const give = async (share: Partial<Share>) => {
  const { status } = await owner.ask('PATCH', `/shares/people/${idaId}`, { ...wholeShare, ...share });
  expect(status).toBe(204);
};
/** About as many bytes as three for each pixel: noise cannot be made lighter. */
const picture = (pixels: number) => noise(pixels, 300).png().toBuffer();
const together = (count: number, ask: (index: number) => Promise<Answer>) =>
  Promise.all(Array.from({ length: count }, (_, index) => ask(index)));
const statuses = (answers: Answer[]) => answers.map(({ status }) => status).toSorted();

test('bytes: of several pictures at once so many come in as fit, and whoever is refused reads why', async () => {
  const one = (await picture(300)).length;
  await give({ bytes: 1_000_000 });
  const fitting = Math.floor(1_000_000 / one);
  const answers = await together(6, async (index) =>
    program.sendFile('/originals', await picture(300 + index), 'a.png'),
  );
  expect(fitting).toBeLessThan(6);
  expect(answers.filter(({ status }) => status === 201).length).toBe(fitting);
  const refused = answers.filter(({ status }) => status === 413);
  expect(refused).toHaveLength(6 - fitting);
  for (const { body } of refused) {
    expect(body).toMatchObject({
      message: expect.stringMatching(/^Your share in this workspace is 1 MB of originals.+this would make it 1\.\d MB/),
    });
  }
  const { person } = await own();
  expect(person?.used.bytes).toBeLessThanOrEqual(1_000_000);
  expect(person?.used.bytes).toBeGreaterThan(0.7 * 1_000_000);
  // Nobody else is bounded by it, and what was deleted is still there for a while.
  const ofOwner = await programOf(owner);
  expect((await ofOwner.sendFile('/originals', await picture(310), 'b.png')).status).toBe(201);
  await give({});
  expect((await program.sendFile('/originals', await picture(320), 'c.png')).status).toBe(201);
});

test('uploads: so many in an hour, however many come at once', async () => {
  const before = (await own()).person?.used.uploads ?? 0;
  await give({ uploads: before + 2 });
  const small = await noise(20, 20).png().toBuffer();
  const answers = await together(5, () => program.sendFile('/originals', small, 'a.png'));
  expect(statuses(answers)).toEqual([201, 201, 429, 429, 429]);
  expect(answers.find(({ status }) => status === 429)?.body).toMatchObject({
    message: expect.stringMatching(/uploads in an hour, and that is used up\. Go on in \d+ minutes; an owner/),
  });
  expect((await own()).person).toMatchObject({ share: { uploads: before + 2 }, used: { uploads: before + 2 } });
  await give({});
});

test('requests: so many in a minute, and the others of the workspace go on', async () => {
  const odd = await comeAs('viewer', 'Odd');
  const { id } = (await odd.person()) ?? { id: '' };
  await owner.ask('PATCH', `/shares/people/${id}`, { ...wholeShare, requests: 60 });
  const answers = await together(80, () => odd.ask('GET', '/projects'));
  // What came before this minute's first one may have counted as well.
  const refused = answers.filter(({ status }) => status === 429);
  expect(refused.length).toBeGreaterThanOrEqual(20);
  expect(refused.length).toBeLessThan(30);
  expect(refused[0]?.body).toMatchObject({ message: expect.stringContaining('60 requests in a minute') });
  expect((await ida.ask('GET', '/projects')).status).toBe(200);
  await owner.ask('PATCH', `/shares/people/${id}`, wholeShare);
  await until(
    () => odd.ask('GET', '/projects'),
    ({ status }) => status === 200,
  );
});

test('jobs: what would be more than a share is not begun, and nothing of it is left', async () => {
  const original = await program.original(await noise(600, 600).png().toBuffer(), 'kite.png');
  const { id: projectId } = await program.project(
    'Marsh jobs',
    [original],
    ['sunpane/portrait-post', 'sunpane/wide-post'],
  );
  await program.measured(projectId);
  await give({ jobs: 1 });
  const refused = await program.askDelivery(projectId);
  expect(refused).toMatchObject({
    status: 429,
    body: { message: expect.stringMatching(/1 job at a time, and this would make it 2\. Wait until some are done/) },
  });
  expect((await program.ask('GET', `/deliveries?project=${projectId}`)).body).toEqual([]);
  await give({ jobs: 2 });
  expect((await program.delivered(await program.askDelivery(projectId))).state).toBe('done');
  await give({});
});

test('bytes: a delivered file that does not fit is left out, with the reason, and fits once there is more', async () => {
  const original = await program.original(await noise(700, 500).png().toBuffer(), 'marsh.png');
  const { id: projectId } = await program.project('Marsh bytes', [original], ['sunpane/square-post']);
  await program.measured(projectId);
  const used = (await own()).person?.used.bytes ?? 0;
  await give({ bytes: used + 1000 });
  const without = await program.delivered(await program.askDelivery(projectId));
  expect(without).toMatchObject({
    state: 'done',
    files: [],
    leftOut: [
      { reasons: [expect.stringMatching(/could not be put into the delivery: Your share in this workspace is/)] },
    ],
  });
  expect((await own()).person?.used.bytes).toBe(used);
  await give({});
  expect((await program.delivered(await program.askDelivery(projectId))).leftOut).toEqual([]);
  expect((await own()).person?.used.bytes).toBeGreaterThan(used + 1000);
});

test('a workspace has a share of its own, which those who look after the program set; what is set is noted', async () => {
  const inside = await workspace('Dune drachen');
  const mira = await comeAs('owner', 'Mira', inside);
  const ofMira = await programOf(mira, 'change', inside);
  expect((await mira.ask('PATCH', `/in/${inside}/shares/workspaces/${inside}`, wholeShare)).status).toBe(403);
  expect((await owner.ask('PATCH', `/shares/people/${(await mira.person())?.id}`, wholeShare)).status).toBe(404);
  expect((await owner.ask('PATCH', `/shares/workspaces/${inside}`, { ...wholeShare, bytes: 5 })).body).toMatchObject({
    message: expect.stringContaining('A share of bytes is a whole number from 1,000,000'),
  });
  await owner.ask('PATCH', `/shares/workspaces/${inside}`, { ...wholeShare, bytes: 1_000_000 });
  expect((await ofMira.sendFile('/originals', await noise(700, 700).png().toBuffer(), 'a.png')).body).toMatchObject({
    message: expect.stringMatching(/^The share of this workspace is 1 MB .+; whoever looks after the program can/),
  });
  const { workspaces, people } = await all();
  expect(workspaces.find(({ of }) => of.id === inside)).toMatchObject({
    share: { bytes: 1_000_000 },
    used: { bytes: 0 },
  });
  expect(people.map(({ of }) => of.name)).toContain('Ida');
  const { body } = await owner.ask('GET', `/in/${inside}/door-events`);
  expect(JSON.stringify(body)).toMatch(/"kind":"share changed","who":"Runa Holm [^"]+","about":"Dune drachen"/);
});
