import { createHash, randomUUID } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { deflateSync } from 'node:zlib';
import { contrastRatio, levelsOf, plateUnder, relativeLuminance, shippedStyles } from '@inkwell/core/lettering';
import {
  type FontFamily,
  FontFamilySchema,
  type Lettering,
  NamedLetterStyleSchema,
  noHand,
  OpenProjectSchema,
  type Original,
} from '@inkwell/core/model';
import { readPlan } from '@inkwell/core/planning';
import { eq } from 'drizzle-orm';
import fontEditor from 'fonteditor-core';
import sharp from 'sharp';
import { expect, test } from 'vitest';
import { clearUnused } from '../store/library/clearing.ts';
import { originals } from '../store/schema/index.ts';
import { fontFile } from '../testing/fonts.ts';
import { startProgram } from '../testing/programs/program.ts';

const { client, services, door } = await startProgram();

const flat = (width: number, height: number, background: string) =>
  sharp({ create: { width, height, channels: 3, background } })
    .png()
    .toBuffer();

const everywhere = { originalIds: null, notOn: [], notOnPlaces: [], onPieces: 'first' as const };
const words = (text: string, styleId: string): Lettering[number] => ({
  ...everywhere,
  kind: 'words',
  id: randomUUID(),
  name: 'Title',
  role: 'title',
  text,
  short: '',
  wish: 'top left',
  wanted: 0.15,
  style: shippedStyles.find(({ id }) => id === styleId)?.style ?? (shippedStyles[0] as (typeof shippedStyles)[0]).style,
});
const emblem = ({ id, sha256, page, width, height, hasAlpha }: Original): Lettering[number] => ({
  ...everywhere,
  kind: 'emblem',
  id: randomUUID(),
  name: 'Emblem',
  originalId: id,
  picture: { sha256, page, width, height, hasAlpha },
  wish: 'bottom right',
  wanted: 0.2,
  clearSpace: 0.1,
  plate: null,
});

/** The colour of a pixel of a proof, of 255 each. */
async function pixel(png: Buffer, x: number, y: number): Promise<number[]> {
  const { data } = await sharp(png)
    .removeAlpha()
    .extract({ left: x, top: y, width: 1, height: 1 })
    .raw()
    .toBuffer({ resolveWithObject: true });
  return [...data];
}

/** A colour as a proof may have it: it is compressed. */
const about = (...levels: number[]) =>
  levels.map((level) => expect.toSatisfy((value: number) => Math.abs(value - level) <= 3));

async function lettered(name: string, items: Lettering, places: string[], picture = '#808080') {
  const original = await client.original(await flat(1600, 1600, picture), `${name}.png`);
  const project = await client.project(name, [original], places);
  const answer = await client.ask('PATCH', `/projects/${project.id}/settings`, {
    version: project.version,
    change: { lettering: items },
  });
  expect(answer.status).toBe(200);
  return OpenProjectSchema.parse(answer.body);
}

test('words and an emblem lie over the picture, in proofs of any width at the same place, and go when they are taken away', async () => {
  const red = await client.original(await flat(200, 200, '#ff0000'), 'emblem.png');
  const project = await lettered('Lettered', [words('HHHH', 'board'), emblem(red)], ['sunpane/square-post']);
  const [frame] = project.frames;
  if (!frame) throw new Error('no frame');
  const [measured] = await client.weights(project.id);
  const plan = (await services.planner.open()).planOf({
    frame,
    original: project.originals[0] as Original,
    project,
    seen: null,
  });
  if (!plan?.lettering || !measured) throw new Error('not lettered');
  expect(readPlan(JSON.parse(JSON.stringify(plan)))).toEqual(plan);
  const [title, mark] = plan.lettering.items;
  expect(title?.text).toBe('HHHH');
  if (!title || !mark) throw new Error('an item is missing');
  for (const width of [1080, 540]) {
    const proof = await client.bytes(`/frames/${frame.id}/proof?plan=${measured.planHash}&width=${width}`);
    const at = (left: number, top: number) =>
      pixel(proof, Math.round((left * width) / 1080), Math.round((top * width) / 1080));
    const middle = ({ left, top, width: across, height }: typeof mark.box) => at(left + across / 2, top + height / 2);
    expect(await middle(mark.box)).toEqual(about(255, 0, 0));
    // The bar of the first H, and the plate between two letters.
    const bar = await at(title.box.left + title.box.height * 0.06, title.box.top + title.box.height / 2);
    expect(Math.min(...bar)).toBeGreaterThan(230);
    const plate = await at(title.box.left - 4, title.box.top - 4);
    expect(Math.max(...plate)).toBeLessThan(70);
    expect(await at(540, 700)).toEqual(about(128, 128, 128));
  }
  const delivery = await client.deliver(project.id);
  expect(delivery.files.map((file) => file.words)).toEqual([['HHHH']]);
  const bare = await client.ask('PATCH', `/projects/${project.id}/settings`, {
    version: project.version,
    change: { lettering: [] },
  });
  expect(OpenProjectSchema.parse(bare.body).lettering).toEqual([]);
  const [without] = await client.weights(project.id);
  const proof = await client.bytes(`/frames/${frame.id}/proof?plan=${without?.planHash}&width=1080`);
  expect(await pixel(proof, Math.round(mark.box.left + 9), Math.round(mark.box.top + 9))).toEqual(about(128, 128, 128));
});

test('how well words can be read is measured on the file’s own bytes at every width, and what sets them off counts', async () => {
  const pale = (hex: string) => relativeLuminance(levelsOf(hex));
  const title = { ...words('Kites', 'bare'), name: 'Title' };
  if (title.kind !== 'words') throw new Error('no words');
  const plain = { ...title, style: { ...title.style, otherColour: null, setOff: { kind: 'none' as const } } };
  const project = await lettered('Pale', [plain], ['candlecast/video-thumbnail'], '#b8b8b8');
  const [frame] = project.frames;
  if (!frame) throw new Error('no frame');
  const legibility = async () => {
    const [measured] = await client.measured(project.id);
    return measured?.legibility ?? [];
  };
  const before = await legibility();
  expect(before.map(({ shownWidth }) => shownWidth)).toEqual([320, 160]);
  for (const { itemId, contrast, busy } of before) {
    expect(itemId).toBe(title.id);
    expect(Math.abs(contrast - contrastRatio(1, pale('#b8b8b8')))).toBeLessThan(0.15);
    expect(busy).toBeLessThan(0.1);
  }
  const hands = { [title.id]: { ...noHand, setOff: plateUnder('#ffffff') } };
  const changed = await client.ask('PATCH', `/frames/${frame.id}`, { version: frame.version, change: { hands } });
  expect(changed.status).toBe(200);
  for (const { contrast } of await legibility()) expect(contrast).toBeGreaterThan(17);
});

test('an emblem’s bytes stay as long as a project shows it, whatever becomes of its original', async () => {
  const logo = await client.original(await flat(120, 60, '#00aa55'), 'logo.png');
  const project = await lettered('With a logo', [emblem(logo)], ['sunpane/square-post']);
  await client.ask('DELETE', `/originals/${logo.id}`);
  await services.db
    .update(originals)
    .set({ deletedAt: new Date(0) })
    .where(eq(originals.id, logo.id));
  expect(await clearUnused(door.whole)).not.toContain(logo.sha256);
  const change = { lettering: [] };
  await client.ask('PATCH', `/projects/${project.id}/settings`, { version: project.version, change });
  expect(await clearUnused(door.whole)).toContain(logo.sha256);
});

test('an emblem has to be a picture that is there, and what a project shows already stays', async () => {
  const logo = await client.original(await flat(100, 50, '#224466'), 'mark.png');
  const project = await lettered('Emblems', [emblem(logo)], ['sunpane/square-post']);
  const save = (version: number, lettering: Lettering) =>
    client.ask('PATCH', `/projects/${project.id}/settings`, { version, change: { lettering } });
  const [shown] = project.lettering;
  if (shown?.kind !== 'emblem') throw new Error('no emblem');
  const other = { ...shown, id: randomUUID(), picture: { ...shown.picture, sha256: 'f'.repeat(64) } };
  expect(await save(project.version, [shown, other])).toMatchObject({
    status: 422,
    body: { message: 'Emblem does not say what its original is. Take it out and add it again.' },
  });
  await client.ask('DELETE', `/originals/${logo.id}`);
  expect(await save(project.version, [{ ...shown, wanted: 0.3 }])).toMatchObject({ status: 200 });
  const gone = await client.original(await flat(90, 50, '#442266'), 'gone.png');
  await client.ask('DELETE', `/originals/${gone.id}`);
  expect(await save(project.version + 1, [emblem(gone)])).toMatchObject({
    status: 422,
    body: { message: 'The picture of Emblem is not in the library. Choose an original that is there.' },
  });
});

test('what is no item is refused in words, and a character that no font has keeps a file out of a delivery', async () => {
  const project = await lettered('Missing letters', [words('Kites 🪁', 'board')], ['candlecast/video-thumbnail']);
  const wrong = { lettering: [{ ...words('', 'board') }] };
  const refused = await client.ask('PATCH', `/projects/${project.id}/settings`, {
    version: project.version,
    change: wrong,
  });
  expect(refused.status).toBe(400);
  expect(JSON.stringify(refused.body)).toContain('Words need at least one character.');
  const delivery = await client.deliver(project.id);
  expect(delivery.files).toEqual([]);
  expect(JSON.stringify(delivery.leftOut)).toContain('No font has 🪁');
});

test('fonts are listed with all their files, and each file comes as it is', async () => {
  const { body } = await client.ask('GET', '/fonts');
  const families = body as { id: string; isHidden: boolean; files: { id: string }[] }[];
  expect(families.filter(({ isHidden }) => !isHidden).length).toBeGreaterThanOrEqual(10);
  const bytes = await client.bytes(`/fonts/files/${families[0]?.files[0]?.id}`);
  expect(bytes.readUInt32BE(0)).toBe(0x00010000);
  expect((await client.ask('GET', '/fonts/files/..%2F..%2Fpackage.json')).status).toBe(404);
});

test('styles are kept under a name, written to files and read again, put aside and taken back', async () => {
  const [style] = shippedStyles.map((one) => one.style);
  const made = NamedLetterStyleSchema.parse(
    (await client.ask('POST', '/letter-styles', { name: 'Harbour', style: { ...style, weight: 500 } })).body,
  );
  // What is published is what the program answers and holds files to.
  const published = join(import.meta.dirname, '..', '..', 'docs', 'formats', 'letter-style.schema.json');
  expect((await client.ask('GET', '/letter-styles/schema')).body).toEqual(
    JSON.parse(await readFile(published, 'utf8')),
  );
  const file = JSON.parse((await client.bytes(`/letter-styles/${made.id}/file`)).toString());
  expect(file).toEqual({ inkwellLetterStyle: 1, name: 'Harbour', style: { ...style, weight: 500 } });
  const again = await client.ask('POST', '/letter-styles/import', file);
  expect(again).toMatchObject({ status: 201, body: { name: 'Harbour', shipped: false, style: file.style } });
  expect(JSON.parse((await client.bytes('/letter-styles/broadside/file')).toString()).style).toEqual(style);
  const wrong = await client.ask('POST', '/letter-styles/import', { ...file, style: { ...file.style, lineHeight: 9 } });
  expect(wrong).toMatchObject({
    status: 400,
    body: { message: expect.stringContaining('Line-height is a number from 0.7 to 2.') },
  });
  expect(await client.ask('DELETE', `/letter-styles/${made.id}`)).toMatchObject({ status: 204 });
  expect((await client.ask('GET', '/letter-styles')).body).toHaveLength(1);
  expect(await client.ask('POST', `/letter-styles/${made.id}/restore`)).toMatchObject({ status: 204 });
  expect((await client.ask('GET', '/letter-styles')).body).toHaveLength(2);
  expect(await client.ask('DELETE', '/letter-styles/broadside')).toMatchObject({ status: 404 });
});

test('a font of one’s own is taken in whatever it is packed in, words are set in it at once, and put aside it still holds', async () => {
  const ttf = await readFile(fontFile('caveat'));
  await fontEditor.woff2.init();
  const woff2 = Buffer.from(fontEditor.woff2.encode(ttf));
  const deflate = (bytes: number[]) => [...deflateSync(Uint8Array.from(bytes))];
  const woff = Buffer.from(fontEditor.ttf2woff(new Uint8Array(ttf).buffer, { metadata: {}, deflate }));
  const families: FontFamily[] = [];
  for (const [name, bytes] of Object.entries({ 'a.ttf': ttf, 'a.woff': woff, 'a.woff2': woff2 })) {
    const { status, body } = await client.sendFile('/fonts', bytes, name);
    expect(status).toBe(201);
    families.push(FontFamilySchema.parse(body));
  }
  for (const { name, isOwn, files } of families) {
    expect([name, isOwn, files[0]?.weight]).toEqual(['Caveat Bold', true, { least: 700, most: 700 }]);
  }
  const [family] = families;
  if (!family) throw new Error('no font');
  const title = words('Kites', 'bare');
  if (title.kind !== 'words') throw new Error('no words');
  const inFont = (id: string) => ({ ...title, id: randomUUID(), style: { ...title.style, family: id } });
  const plans = async (name: string, id: string) => {
    const project = await lettered(name, [inFont(id)], ['sunpane/square-post']);
    const framed = { original: project.originals[0] as Original, project, seen: null };
    const [frame] = project.frames;
    const plan = frame && (await services.planner.open()).planOf({ frame, ...framed });
    const layer = plan?.lettering?.layers.at(-1);
    return layer?.kind === 'outline' ? layer.path : '';
  };
  const shipped = await plans('Same', 'caveat');
  for (const { id } of families) expect(await plans('Own', id)).toBe(shipped);
  const [own, other] = [await plans('Own', family.id), await plans('Other', 'jost')];
  expect(own).not.toBe(other);
  expect(await client.bytes(`/fonts/files/${family.id}`)).toEqual(ttf);
  expect(await client.ask('DELETE', `/fonts/${family.id}`)).toMatchObject({ status: 204 });
  const { body } = await client.ask('GET', '/fonts');
  expect((body as FontFamily[]).find(({ id }) => id === family.id)?.isHidden).toBe(true);
  expect(await plans('Put aside', family.id)).toBe(own);
});

test('what is no font is refused in words, and words that ask for a font which comes later are measured then', async () => {
  const ttf = await readFile(fontFile('caveat'));
  const refused = async (bytes: Buffer, says: string) => {
    const { status, body } = await client.sendFile('/fonts', bytes, 'kite.ttf');
    expect(status).toBe(415);
    expect(JSON.stringify(body)).toContain(says);
  };
  await refused(Buffer.from('no font at all'), 'This is no font that is taken');
  await refused(ttf.subarray(0, 2000), 'or it is damaged');
  await refused(Buffer.concat([Buffer.from('ttcf'), ttf]), 'a collection of several fonts');
  const packed = Buffer.alloc(48);
  packed.write('wOF2', 0, 'latin1');
  packed.writeUInt32BE(4_000_000_000, 16);
  await refused(packed, 'more than 40 MB');

  // A font whose file differs from those above: its id is known before it comes.
  const later = Buffer.concat([ttf, Buffer.alloc(4)]);
  const id = `own-${createHash('sha256').update(later).digest('hex').slice(0, 24)}`;
  const title = words('Kites', 'bare');
  if (title.kind !== 'words') throw new Error('no words');
  const project = await lettered(
    'Later',
    [{ ...title, style: { ...title.style, family: id } }],
    ['sunpane/square-post'],
  );
  const [before] = await client.measured(project.id);
  await client.sendFile('/fonts', later, 'later.ttf');
  const [after] = await client.measured(project.id);
  expect(after?.planHash).not.toBe(before?.planHash);
});
