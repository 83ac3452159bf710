import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { type NetworkPost, NetworkPostSchema, standInNotice } from '@inkwell/core/model';
import sharp from 'sharp';
import { afterAll, expect, test } from 'vitest';
import { networkOf } from '../standins/networkSheet.ts';
import { networkOpenApi } from '../standins/openApi.ts';
import { shippedSheets } from '../standins/shippedSheets.ts';
import { chart, difference, noise } from '../testing/pictures/pictures.ts';
import { askNetwork, dataFolder, networksWith, patient, startNetworksOn } from '../testing/programs/networks.ts';
import { bareDatabase } from '../testing/programs/program.ts';

const database = await bareDatabase();
const sheets = networksWith();
const running = await startNetworksOn(database, sheets, dataFolder());
afterAll(() => running.stop());

const network = (slug: string) => {
  const found = running.networks.find((one) => one.slug === slug);
  if (!found) throw new Error(slug);
  return found;
};
let keys = 0;
const newKey = () => {
  keys += 1;
  return `test-key-${keys}`;
};
const begin = (slug: string, post: object, key = newKey()) =>
  askNetwork(network(slug), 'POST', '/posts', {
    headers: { 'content-type': 'application/json', 'idempotency-key': key },
    body: JSON.stringify(post),
  });
const opened = async (slug: string, post: object) => NetworkPostSchema.parse((await begin(slug, post)).body);
const put = (slug: string, { id }: Pick<NetworkPost, 'id'>, number: number, data: Buffer) =>
  askNetwork(network(slug), 'PUT', `/posts/${id}/files/${number}`, { body: new Uint8Array(data) });
const publish = (slug: string, { id }: Pick<NetworkPost, 'id'>) =>
  askNetwork(network(slug), 'POST', `/posts/${id}/publish`);
const jpeg = (width: number, height: number) => chart(width, height).jpeg({ quality: 95 }).toBuffer();

test('the description that is published is that of the networks', async () => {
  const path = join(import.meta.dirname, '..', '..', 'docs', 'formats', 'network.openapi.json');
  expect(JSON.parse(JSON.stringify(networkOpenApi()))).toEqual(JSON.parse(await readFile(path, 'utf8')));
});

test('every place of every network takes what its sheet says, and shows it scaled, cut from the middle and encoded again', async () => {
  for (const { slug, places, afterUpload } of sheets) {
    for (const place of places.filter(({ group }) => group?.kind !== 'panels' && group?.kind !== 'block')) {
      const height = typeof place.height === 'number' ? place.height : place.height.max;
      const data = await chart(place.width, height)
        .withMetadata({ exif: { IFD0: { Artist: 'Saltmarsh' } } })
        .jpeg()
        .toBuffer();
      const post = await opened(slug, { place: place.slug });
      const taken = NetworkPostSchema.parse((await put(slug, post, 1, data)).body);
      const [file] = taken.files;
      const share = Math.min(1, afterUpload.longEdge / Math.max(place.width, height));
      expect(file?.kept).toMatchObject({
        width: Math.round(place.width * share),
        height: Math.round(height * share),
        format: afterUpload.format,
      });
      const { data: kept } = await askNetwork(network(slug), 'GET', `/posts/${post.id}/files/1/kept`);
      const facts = await sharp(kept).metadata();
      expect(facts).toMatchObject({ format: afterUpload.format, hasProfile: false });
      expect(facts.exif).toBeUndefined();
      expect(kept.length).toBe(file?.kept.bytes);
      expect(file?.shown.map(({ shownWidth, width }) => [shownWidth, width])).toEqual(
        place.shownWidths.map((shown) => [shown, Math.min(shown, file?.kept.width ?? 0)]),
      );
    }
  }
});

test('what is not the ratio of its place is cut from the middle, or refused where the network is strict', async () => {
  const wide = await jpeg(1600, 1000);
  const post = await opened('sunpane', { place: 'square-post' });
  expect((await put('sunpane', post, 1, wide)).status).toBe(201);
  const { data } = await askNetwork(network('sunpane'), 'GET', `/posts/${post.id}/files/1/kept`);
  const middle = await sharp(wide).extract({ left: 300, top: 0, width: 1000, height: 1000 }).png().toBuffer();
  expect(await sharp(data).metadata()).toMatchObject({ width: 1000, height: 1000 });
  expect(await difference(data, middle)).toBeLessThan(3);
  const strict = await opened('pipwire', { place: 'single-image' });
  expect((await put('pipwire', strict, 1, wide)).body).toMatchObject({
    error: { code: 'ratio', message: 'Media upload failed: unsupported shape.', measured: '1.600' },
  });
});

test('one network forgets to convert colours: a wide gamut comes out pale there, and as it is elsewhere', async () => {
  const red = { create: { width: 1080, height: 1080, channels: 3 as const, background: '#e00010' } };
  const profiled = await sharp(red).withIccProfile('p3').jpeg({ quality: 95 }).toBuffer();
  const meanOf = async (slug: string, place: string) => {
    const post = await opened(slug, { place });
    await put(slug, post, 1, profiled);
    const { data } = await askNetwork(network(slug), 'GET', `/posts/${post.id}/files/1/kept`);
    return (await sharp(data).stats()).channels.map(({ mean }) => mean);
  };
  const [right] = await meanOf('sunpane', 'square-post');
  const [pale] = await meanOf('hearthring', 'feed-square');
  expect(right).toBeGreaterThan(220);
  expect(pale).toBeLessThan(212);
});

test('what a network does not take is refused in its own words, with the rule, and is not kept', async () => {
  const animated = await sharp(
    Buffer.concat([await noise(640, 320).raw().toBuffer(), await chart(640, 320).raw().toBuffer()]),
    { raw: { width: 640, height: 640, channels: 3, pageHeight: 320 } },
  )
    .webp({ loop: 0 })
    .toBuffer();
  const clear = await sharp({ create: { width: 512, height: 512, channels: 4, background: '#ff000080' } })
    .png()
    .toBuffer();
  const heavy = await noise(2250, 750).png({ compressionLevel: 0 }).toBuffer();
  const cases: [slug: string, place: string, data: Buffer, code: string, status: number][] = [
    ['sunpane', 'square-post', Buffer.from('no picture'), 'unreadable picture', 422],
    ['sunpane', 'square-post', (await jpeg(1080, 1080)).subarray(0, 20_000), 'unreadable picture', 422],
    ['sunpane', 'square-post', await chart(1080, 1080).gif().toBuffer(), 'format', 422],
    ['sunpane', 'square-post', animated, 'animated', 422],
    ['sunpane', 'square-post', await chart(1080, 1080).toColourspace('cmyk').jpeg().toBuffer(), 'colour model', 422],
    ['pipwire', 'profile-picture', clear, 'alpha', 422],
    ['candlecast', 'video-thumbnail', await jpeg(320, 180), 'dimensions', 422],
    ['quillpost', 'header', await jpeg(1601, 800), 'dimensions', 422],
    ['guildrow', 'profile-banner', await jpeg(1600, 500), 'ratio', 422],
    ['pipwire', 'header', heavy, 'too heavy', 413],
    ['sunpane', 'no-such-place', heavy, 'unknown place', 404],
  ];
  for (const [slug, place, data, code, status] of cases) {
    const begun = await begin(slug, { place });
    const answer = begun.status === 201 ? await put(slug, NetworkPostSchema.parse(begun.body), 1, data) : begun;
    expect(answer).toMatchObject({ status, body: { standIn: true, error: { code } } });
    if (begun.status !== 201) continue;
    const { id } = NetworkPostSchema.parse(begun.body);
    expect(await askNetwork(network(slug), 'GET', `/posts/${id}`)).toMatchObject({ body: { files: [] } });
    expect(await publish(slug, { id })).toMatchObject({ status: 409, body: { error: { code: 'too few files' } } });
  }
  // 3.5 MB are the network's own limit, of which the spec book does not know.
  const [, place, data] = cases[9] ?? ['', '', Buffer.alloc(0)];
  expect((await put('pipwire', await opened('pipwire', { place }), 1, data)).body).toMatchObject({
    error: {
      allowed: '3.5 MB',
      measured: expect.stringMatching(/^5\.\d+ MB$/),
      limitBytes: 3_500_000,
      message: 'Media upload failed: file too large.',
    },
  });
  expect(await begin('sunpane', { place: 'swipe-panels-portrait', pieces: 13 })).toMatchObject({
    status: 422,
    body: {
      error: { code: 'too many files', allowed: '2 to 12', message: 'A swipe has an end. Leave some panels out.' },
    },
  });
});

test('asked twice, a post is one, a file is taken once, and it is published once; nothing is taken out of order', async () => {
  const panels = await Promise.all([1080, 1081, 1082].map((side) => jpeg(side, side)));
  const [first, second, third] = panels as [Buffer, Buffer, Buffer];
  const key = newKey();
  const wanted = { place: 'swipe-panels-square', pieces: 3, columns: 3, caption: 'Dunes' };
  const [post, again] = (await Promise.all([begin('sunpane', wanted, key), begin('sunpane', wanted, key)])).map(
    ({ body }) => NetworkPostSchema.parse(body),
  ) as [NetworkPost, NetworkPost];
  expect(again.id).toBe(post.id);
  expect(await put('sunpane', post, 2, second)).toMatchObject({
    status: 409,
    body: { error: { code: 'out of order' } },
  });
  const both = await Promise.all([put('sunpane', post, 1, first), put('sunpane', post, 1, first)]);
  expect(both.map(({ status }) => status).sort()).toEqual([200, 201]);
  expect(await put('sunpane', post, 1, second)).toMatchObject({
    status: 409,
    body: { error: { code: 'other content' } },
  });
  expect(await put('sunpane', post, 2, second)).toMatchObject({ status: 201 });
  expect(await publish('sunpane', post)).toMatchObject({ status: 409 });
  expect(await put('sunpane', post, 3, third)).toMatchObject({ status: 201 });
  expect(await put('sunpane', post, 4, third)).toMatchObject({
    status: 409,
    body: { error: { code: 'too many files' } },
  });
  const [once, twice] = [await publish('sunpane', post), await publish('sunpane', post)];
  expect(twice.body).toEqual(once.body);
  expect(once.body).toMatchObject({
    state: 'published',
    caption: 'Dunes',
    files: [{ number: 1 }, { number: 2 }, { number: 3 }],
  });
  // What is kept outlives the service, and can be emptied.
  const { posts } = (await askNetwork(network('sunpane'), 'GET', '/account')).body as { posts: number };
  expect(posts).toBeGreaterThan(0);
  expect((await askNetwork(network('guildrow'), 'DELETE', '/posts')).status).toBe(204);
  expect((await askNetwork({ ...network('sunpane'), token: 'guessed' }, 'GET', '/account')).status).toBe(401);
  expect((await askNetwork(network('sunpane'), 'DELETE', `/posts/${post.id}`)).status).toBe(204);
  expect((await askNetwork(network('sunpane'), 'GET', `/posts/${post.id}`)).status).toBe(404);
});

test('a screen shows a post through its mask, under its controls, with its gaps and without what is folded away', async () => {
  const white = (width: number, height: number) =>
    sharp({ create: { width, height, channels: 3, background: '#ffffff' } })
      .jpeg({ quality: 95 })
      .toBuffer();
  const screenOf = async (slug: string, post: object, files: Buffer[], width: number) => {
    const open = await opened(slug, post);
    for (const [at, data] of files.entries()) expect((await put(slug, open, at + 1, data)).status).toBe(201);
    await publish(slug, open);
    const { data } = await askNetwork(network(slug), 'GET', `/posts/${open.id}/screen/${width}`);
    const { data: pixels, info } = await sharp(data).removeAlpha().raw().toBuffer({ resolveWithObject: true });
    return { info, at: (x: number, y: number) => pixels[(y * info.width + x) * 3] ?? -1 };
  };
  const story = await screenOf('sunpane', { place: 'story' }, [await white(1080, 1920)], 390);
  expect([story.at(195, 40), story.at(195, 300), story.at(195, 650)].map((level) => level > 250)).toEqual([
    false,
    true,
    false,
  ]);
  // Every screen says in words that it is simulated, with whatever fonts the machine has.
  const below = Array.from({ length: 390 }, (_, x) => story.at(x, story.info.height - 9));
  expect(below.some((level) => level < 160)).toBe(true);
  const round = await screenOf('pipwire', { place: 'profile-picture' }, [await white(512, 512)], 128);
  expect([round.at(1, 1), round.at(64, 64)].map((level) => level > 250)).toEqual([false, true]);
  const folded = await screenOf('corkmoor', { place: 'long-card' }, [await white(1000, 2000)], 240);
  expect(folded.info.height).toBe(300 + 18);
  // Uploaded down the columns: the third upload stands at the top right.
  const tiles = await Promise.all(
    ['#ffffff', '#ffffff', '#000000', '#ffffff'].map((background) =>
      sharp({ create: { width: 1200, height: 675, channels: 3, background } })
        .jpeg()
        .toBuffer(),
    ),
  );
  const block = await screenOf('pipwire', { place: 'four-up-block', pieces: 4, columns: 2 }, tiles, 506);
  expect(Math.abs(block.info.width - 506)).toBeLessThan(3);
  expect(block.at(400, 40)).toBeLessThan(10);
  expect(block.at(100, 40)).toBeGreaterThan(250);
  expect(block.at(253, 40)).toBe(0xe9);

  // The profile page: newest first, cut to its tiles.
  for (const background of ['#ffffff', '#000000']) {
    const post = await opened('sunpane', { place: 'profile-quilt' });
    const tile = await sharp({ create: { width: 1080, height: 1440, channels: 3, background } })
      .jpeg()
      .toBuffer();
    await put('sunpane', post, 1, tile);
    await publish('sunpane', post);
  }
  const { data } = await askNetwork(network('sunpane'), 'GET', '/profile');
  const { data: page, info } = await sharp(data).removeAlpha().raw().toBuffer({ resolveWithObject: true });
  expect(info.width).toBe(3 * 120 + 2);
  expect([page[(80 * info.width + 60) * 3], page[(80 * info.width + 180) * 3]]).toEqual([0, 255]);
});

test('a network says when to ask again, fails now and then, and drops connections, as its file says', async () => {
  const impolite = networksWith(({ slug }) => ({
    manners: {
      ...patient,
      ...(slug === 'candlecast' ? { failsOnceIn: 2 } : slug === 'hearthring' ? { dropsOnceIn: 1 } : {}),
    },
    ...(slug === 'pipwire' ? { manners: { ...patient, requests: { most: 2, perSeconds: 60 } } } : {}),
  }));
  const own = await startNetworksOn(await bareDatabase(), impolite, dataFolder());
  const at = (slug: string) => own.networks.find((one) => one.slug === slug) ?? own.networks[0];
  try {
    const ask = (slug: string, method: string, path: string, init = {}) => {
      const account = at(slug);
      if (!account) throw new Error(slug);
      return askNetwork(account, method, path, init);
    };
    const answers = [await ask('pipwire', 'GET', '/account'), await ask('pipwire', 'GET', '/account')];
    expect(answers.map(({ status }) => status)).toEqual([200, 200]);
    const told = await ask('pipwire', 'GET', '/account');
    expect(told).toMatchObject({
      status: 429,
      body: { error: { message: 'Slow down a little.' }, notice: standInNotice },
    });
    expect(Number(told.headers.get('retry-after'))).toBeGreaterThan(50);

    const begun = async (slug: string, place: string) =>
      NetworkPostSchema.parse(
        (
          await ask(slug, 'POST', '/posts', {
            headers: { 'content-type': 'application/json', 'idempotency-key': newKey() },
            body: JSON.stringify({ place }),
          })
        ).body,
      );
    const upload = (slug: string, id: string, data: Buffer) =>
      ask(slug, 'PUT', `/posts/${id}/files/1`, { body: new Uint8Array(data) });
    const thumbnail = await jpeg(1280, 720);
    const one = await begun('candlecast', 'video-thumbnail');
    expect((await upload('candlecast', one.id, thumbnail)).status).toBe(201);
    expect((await upload('candlecast', one.id, thumbnail)).status).toBe(500);
    expect((await upload('candlecast', one.id, thumbnail)).status).toBe(200);
    // The first is kept though nobody was told; the next connection breaks before anything is.
    const square = await jpeg(1080, 1080);
    const two = await begun('hearthring', 'feed-square');
    await expect(upload('hearthring', two.id, square)).rejects.toThrow();
    expect(await ask('hearthring', 'GET', `/posts/${two.id}`)).toMatchObject({ body: { files: [{ number: 1 }] } });
    const three = await begun('hearthring', 'feed-square');
    await expect(upload('hearthring', three.id, square)).rejects.toThrow();
    expect(await ask('hearthring', 'GET', `/posts/${three.id}`)).toMatchObject({ body: { files: [] } });
  } finally {
    await own.stop();
  }
});

test('a person can make a network that is like another one; what its file says wrongly is said', () => {
  const file = {
    like: 'sunpane',
    slug: 'duneview',
    name: 'Duneview',
    afterUpload: { longEdge: 900, quality: 60, chroma: '4:2:0' },
    gate: {},
    manners: { requests: { most: 1, perSeconds: 1 } },
    words: { 'too heavy': 'No.' },
    places: { story: { limit: { bytes: 1_000_000, unit: 'MB' } } },
  };
  const made = networkOf(file, shippedSheets());
  expect(made).toMatchObject({
    slug: 'duneview',
    name: 'Duneview',
    gate: { dimensions: 'exact', ratioTolerance: null },
  });
  expect(made.places.find(({ slug }) => slug === 'story')).toMatchObject({ width: 1080, limit: { bytes: 1_000_000 } });
  expect(() => networkOf({ ...file, like: 'nowhere' }, shippedSheets())).toThrow('No sheet is called nowhere.');
  expect(() => networkOf({ ...file, places: { attic: {} } }, shippedSheets())).toThrow('Sunpane has no place attic.');
  expect(() => networkOf({ ...file, gate: { dimension: 'exact' } }, shippedSheets())).toThrow();
});
