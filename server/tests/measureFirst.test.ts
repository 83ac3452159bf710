import { expect, test } from 'vitest';
import { chart } from '../testing/pictures/pictures.ts';
import { until } from '../testing/programs/client.ts';
import { startProgram } from '../testing/programs/program.ts';

const { client } = await startProgram();

test('what somebody looks at is measured before what was asked for earlier', async () => {
  const pictures = await Promise.all([700, 710, 720, 730, 740, 750].map((side) => chart(side, side).png().toBuffer()));
  const originals = await Promise.all(pictures.map((data, index) => client.original(data, `${index}.png`)));
  const places = [
    'pipwire/profile-picture',
    'guildrow/profile-picture',
    'sunpane/profile-picture',
    'stallfront/item-picture',
  ];
  const project = await client.project('A long row', originals, places);
  const ask = () => client.weights(project.id);
  const waiting = await ask();
  const last = waiting.at(-1);
  if (!last) throw new Error('no frame');
  const path = `/frames/${last.frameId}/measure`;
  expect(await client.ask('POST', path, { plan: last.planHash })).toMatchObject({ status: 202 });
  const of = (all: typeof waiting, frameId: string) => all.find((one) => one.frameId === frameId)?.weight ?? null;
  const then = await until(ask, (all) => of(all, last.frameId) !== null);
  // A handful is in hand already when it is asked for; whatever else was asked for before has to wait.
  expect(then.filter(({ weight }) => weight === null).length).toBeGreaterThan(waiting.length / 3);

  expect(await client.ask('POST', path, { plan: 'f'.repeat(64) })).toMatchObject({ status: 409 });
  expect(await client.ask('POST', path, {})).toMatchObject({ status: 400 });
  // Asked for again, what is known is known.
  expect(await client.ask('POST', path, { plan: last.planHash })).toMatchObject({ status: 202 });
  expect(of(await ask(), last.frameId)).toEqual(of(then, last.frameId));
});
