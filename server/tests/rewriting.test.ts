import { randomUUID } from 'node:crypto';
import { shippedStyles } from '@inkwell/core/lettering';
import { DrawnTextsSchema, type Lettering, OpenProjectSchema, type Original } from '@inkwell/core/model';
import sharp from 'sharp';
import { expect, test } from 'vitest';
import { startProgram } from '../testing/programs/program.ts';

const { client } = await startProgram();

/** Two texts: one in lines and by a style sheet, one within a group that turns and sizes it. */
const drawing = `<?xml version="1.0" encoding="UTF-8"?>
<svg xmlns="http://www.w3.org/2000/svg" width="400" height="300" viewBox="0 0 400 300">
  <style>.title { font: bold 60px/1.2 sans-serif; fill: #c00000 }</style>
  <rect width="400" height="300" fill="#ffffff"/>
  <text class="title" x="200" y="80" text-anchor="middle">Autumn<tspan x="200" dy="70">kites &amp; more</tspan></text>
  <g font-size="20"><g transform="translate(20 250)"><text fill="#0000c0">4 <tspan>October</tspan></text></g></g>
  <text x="5" y="5"> </text>
</svg>`;

const textsOf = async (id: string) => DrawnTextsSchema.parse((await client.ask('GET', `/originals/${id}/texts`)).body);

const rewrite = (projectId: string, originalId: string, words: { at: number; text: string }[], family = 'sofia-sans') =>
  client.ask('POST', `/projects/${projectId}/rewriting`, { originalId, rewriting: { family, words } });

/** The bounds of one colour in an original as it is drawn, in shares of its width and height; null where there is none of it. */
async function inkOf({ id }: Original, isInk: (r: number, g: number, b: number) => boolean) {
  const { data, info } = await sharp(await client.bytes(`/originals/${id}/preview?width=800`))
    .removeAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  const found = { left: 1, top: 1, right: 0, bottom: 0 };
  for (let at = 0; at < data.length; at += 3) {
    if (!isInk(data[at] as number, data[at + 1] as number, data[at + 2] as number)) continue;
    const [x, y] = [((at / 3) % info.width) / info.width, Math.floor(at / 3 / info.width) / info.height];
    found.left = Math.min(found.left, x);
    found.right = Math.max(found.right, x);
    found.top = Math.min(found.top, y);
    found.bottom = Math.max(found.bottom, y);
  }
  return found.right > found.left ? found : null;
}
const isBlue = (r: number, g: number, b: number) => r < 60 && g < 60 && b > 150;
const isRed = (r: number, g: number, b: number) => r > 150 && g < 60 && b < 60;

test('texts of a drawing are listed, and replaced for one project in the fonts that are there', async () => {
  const original = await client.original(Buffer.from(drawing), 'poster.svg');
  expect(await textsOf(original.id)).toEqual({
    texts: [
      { at: 0, text: 'Autumn\nkites & more' },
      { at: 1, text: '4 October' },
    ],
    rewriting: null,
  });
  const mark = {
    id: randomUUID(),
    name: 'Date',
    role: 'keep',
    priority: 'must',
    kind: null,
    look: null,
    shape: 'rectangle',
  };
  const place = { left: 100, top: 2300, width: 900, height: 300 };
  await client.ask('PATCH', `/originals/${original.id}/settings`, {
    version: original.version,
    change: { marks: [{ ...mark, ...place }] },
  });
  const project = await client.project('Rewritten', [original], ['sunpane/square-post', 'pipwire/header']);
  const other = await client.project('As it came', [original], ['sunpane/square-post']);
  const style = shippedStyles[0]?.style;
  const title = {
    kind: 'words',
    id: randomUUID(),
    name: 'Title',
    role: 'title',
    text: 'On this one',
    short: '',
    originalIds: [original.id],
    notOn: [],
    notOnPlaces: [],
    onPieces: 'first',
    wish: 'top',
    wanted: 0.1,
    style,
  } as Lettering[number];
  await client.ask('PATCH', `/projects/${project.id}/settings`, {
    version: project.version,
    change: { lettering: [title] },
  });

  const answer = await rewrite(project.id, original.id, [
    { at: 0, text: 'XII\nHHHH' },
    { at: 1, text: '4 October' },
  ]);
  expect(answer.status).toBe(200);
  const after = OpenProjectSchema.parse(answer.body);
  const [made] = after.originals;
  if (!made) throw new Error('no original');
  expect(made).toMatchObject({ name: 'poster, other words', width: original.width, height: original.height });
  expect(made.marks).toMatchObject([place]);
  expect(after.frames.map(({ id, originalId }) => [id, originalId]).sort()).toEqual(
    project.frames.map(({ id }) => [id, made.id]).sort(),
  );
  expect(after.lettering[0]?.originalIds).toEqual([made.id]);
  expect((await client.open(other.id)).originals.map(({ id }) => id)).toEqual([original.id]);
  // What was asked for but says what is there already is no change.
  expect(await textsOf(made.id)).toMatchObject({
    rewriting: { family: 'sofia-sans', words: [{ at: 0, text: 'XII\nHHHH' }] },
  });

  // Two lines of capitals, in the colour of the style sheet, about the middle of the line, with their feet at 80 and 150.
  const ink = await inkOf(made, isRed);
  if (!ink) throw new Error('nothing is drawn');
  expect((ink.left + ink.right) / 2).toBeCloseTo(0.5, 2);
  expect(ink.bottom).toBeCloseTo(150 / 300, 2);
  expect(ink.top).toBeGreaterThan(25 / 300);
  expect(ink.top).toBeLessThan(50 / 300);
  const drawn = (await client.bytes(`/originals/${made.id}/file`)).toString();
  expect(drawn).not.toContain('Autumn');
  expect(drawn).toContain('October');
  expect((await client.bytes(`/originals/${original.id}/file`)).toString()).toBe(drawing);

  // What is read from the right begins where the old words began all the same.
  const arabic = OpenProjectSchema.parse((await rewrite(project.id, made.id, [{ at: 1, text: 'أكتوبر' }])).body);
  const [dated] = arabic.originals;
  if (!dated) throw new Error('no original');
  expect((await inkOf(dated, isBlue))?.left).toBeCloseTo(20 / 400, 2);

  // Once more, from the words that it came with; what nobody has chosen any more is put aside.
  const again = OpenProjectSchema.parse((await rewrite(project.id, dated.id, [{ at: 0, text: '' }])).body);
  const [emptied] = again.originals;
  if (!emptied) throw new Error('no original');
  expect(await inkOf(emptied, isRed)).toBeNull();
  expect((await client.ask('GET', `/originals/${made.id}/texts`)).status).toBe(404);
  // The old words are put back with the drawing that they came with.
  const back = OpenProjectSchema.parse((await rewrite(project.id, emptied.id, [])).body);
  expect(back.originals.map(({ id }) => id)).toEqual([original.id]);
  expect(back.lettering[0]?.originalIds).toEqual([original.id]);
}, 60_000);

test('what cannot be replaced is refused in words, and nothing is changed', async () => {
  const original = await client.original(Buffer.from(drawing), 'poster.svg');
  const picture = await sharp({ create: { width: 300, height: 200, channels: 3, background: '#808080' } })
    .png()
    .toBuffer();
  const plain = await client.original(picture, 'plain.png');
  const project = await client.project('Refused', [original, plain], ['sunpane/square-post']);
  const refusals = [
    [await rewrite(project.id, original.id, [{ at: 0, text: 'Kites 🪁' }]), /No font has 🪁\. Write it without/],
    [await rewrite(project.id, original.id, [{ at: 7, text: 'x' }]), /This drawing has no text 8\./],
    [await rewrite(project.id, plain.id, [{ at: 0, text: 'x' }]), /Only words of an SVG can be replaced/],
    [await rewrite(project.id, randomUUID(), [{ at: 0, text: 'x' }]), /This picture is not in this project/],
    [
      await rewrite(project.id, original.id, [
        { at: 0, text: 'a' },
        { at: 0, text: 'b' },
      ]),
      /only once/,
    ],
  ] as const;
  for (const [{ status, body }, words] of refusals) {
    expect(status).toBeLessThan(500);
    expect(JSON.stringify(body)).toMatch(words);
  }
  expect((await client.open(project.id)).originals.map(({ id }) => id)).toEqual([original.id, plain.id]);
  // Of two at a time one is too late, and leaves nothing behind.
  const [one, other] = await Promise.all(
    ['Wind', 'Waves'].map((text) => rewrite(project.id, original.id, [{ at: 0, text }])),
  );
  expect([one?.status, other?.status].sort()).toEqual([200, 409]);
  const { body } = await client.ask('GET', '/originals');
  const left = (body as Original[]).filter(({ rewritten }) => rewritten?.from === original.id);
  expect(left.map(({ id }) => id)).toEqual([(await client.open(project.id)).originals[0]?.id]);
  expect(await textsOf(plain.id)).toEqual({ texts: [], rewriting: null });
});
