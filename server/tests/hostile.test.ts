import { mkdir, mkdtemp, readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { afterAll, describe, expect, inject, test } from 'vitest';
import { isRunning } from '../imaging/copies/isRunning.ts';
import { plainSvg } from '../imaging/intake/looking/svgReach.ts';
import { Decoders, decodingLimits } from '../imaging/intake/processes/decoders.ts';
import { chart } from '../testing/pictures/pictures.ts';
import { startProgram } from '../testing/programs/program.ts';

const folder = await mkdtemp(join(inject('dataFolder'), 'hostile-'));
let count = 0;
async function lying(data: Buffer | string): Promise<{ path: string; page: number; to: string }> {
  count += 1;
  const own = join(folder, String(count));
  await mkdir(own);
  await writeFile(join(own, 'picture'), data);
  return { path: join(own, 'picture'), page: 0, to: join(own, 'copy') };
}

const svg = (inside: string, attributes = '') =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="1000" height="1000" ${attributes}>${inside}</svg>`;
/** A few words that ask for hours of work. */
const endless = svg(
  '<filter id="f"><feMorphology operator="dilate" radius="450"/><feMorphology operator="erode" radius="450"/></filter>' +
    '<rect width="1000" height="1000" fill="red" filter="url(#f)"/>',
);
/** Each use draws ten of the one before: a billion circles. */
const multiplied = svg(
  `<g id="a0"><circle r="9"/></g>${Array.from({ length: 9 }, (_, at) => `<g id="a${at + 1}">${`<use href="#a${at}"/>`.repeat(10)}</g>`).join('')}`,
);

describe('a file that asks for too much', () => {
  const decoders = new Decoders({ ...decodingLimits, memory: 700_000_000, drawing: 2, clock: 60 });
  afterAll(() => decoders.end());

  test('is told so and its process ended, while others come in', async () => {
    const bad = await Promise.all([endless, multiplied, endless, endless].map(lying));
    const refused = bad.map((one) =>
      expect(decoders.copy(one, {})).rejects.toThrow(/takes more than|Opening this file|damaged/),
    );
    const good = await decoders.copy(await lying(await chart(400, 300).png().toBuffer()), {});
    expect(good).toMatchObject({ format: 'png', width: 400, height: 300, hasAlpha: false });
    await Promise.all(refused);
  });

  test('of memory is told so too', async () => {
    // Masks within masks: every one holds the whole picture once more.
    const masks = Array.from(
      { length: 60 },
      (_, at) =>
        `<mask id="m${at}"><rect width="9999" height="9999" fill="#fff" ${at > 0 ? `mask="url(#m${at - 1})"` : ''}/></mask>`,
    );
    const file = `<svg xmlns="http://www.w3.org/2000/svg" width="9999" height="9999">${masks.join('')}<rect width="9999" height="9999" mask="url(#m59)"/></svg>`;
    await expect(decoders.copy(await lying(file), {})).rejects.toThrow(/takes more than/);
  });

  test('and one that nobody waits for any more ends its work', async () => {
    const leaving = new AbortController();
    const gone = decoders.copy(await lying(endless), { signal: leaving.signal });
    leaving.abort(new Error('The upload was cancelled.'));
    await expect(gone).rejects.toThrow('cancelled');
    expect(await decoders.copy(await lying(await chart(40, 30).png().toBuffer()), {})).toMatchObject({ width: 40 });
  });
});

test('while such files are opened, the program answers, and it ends when it is told to', async () => {
  const { client, services } = await startProgram();
  const uploads = Array.from({ length: 4 }, (_, at) => client.upload(Buffer.from(endless), `${at}.svg`));
  let answered = 0;
  const all = Promise.allSettled(uploads).then(() => answered);
  for (; answered < 20; answered += 1) expect((await client.ask('GET', '/projects')).status).toBe(200);
  services.decoders.end();
  // All twenty were answered before a single file was done with.
  expect(await all).toBe(20);
});

describe('a drawing that reaches outside of itself is refused, whatever its prefixes', () => {
  const [xlink, zz] = ['xmlns:xlink="http://www.w3.org/1999/xlink"', 'xmlns:zz="http://www.w3.org/1999/xlink"'];
  test.each([
    svg('<image zz:href="known.png"/>', zz),
    svg('<image xlink:href="known.png"/>', xlink),
    svg('<image href="known.png"/>'),
    svg('<use href="other.svg#a"/>'),
    svg('<image href="#a" zz:href="known.png"/>', zz),
    svg('<g xml:base="file:///etc/"><use href="#a"/></g>'),
    svg('<rect fill="url(other.svg#paint)"/>'),
    svg('<rect style="fill: u\\72l(other.svg#paint)"/>'),
    svg('<style>@import "other.css";</style>'),
    svg('<zz:style xmlns:zz="http://www.w3.org/2000/svg">@import url(other.css);</zz:style>'),
    svg('<foreignObject/>'),
    svg('<zz:script xmlns:zz="http://www.w3.org/2000/svg"/>'),
    svg('<rect onclick="go()"/>'),
    svg('<rect style="fill: image-set(\'known.png\' 1x)"/>'),
    `<?xml-stylesheet href="other.css"?>${svg('')}`,
    `<!DOCTYPE svg [<!ENTITY e SYSTEM "file:///etc/passwd">]>${svg('<text>&e;</text>')}`,
    svg('<image qq:href="known.png"/>'),
  ])('%s', (text) => {
    expect(() => plainSvg(text)).toThrow(/reaches for something outside|damaged/);
  });

  test('and one that does not comes in as it is, told to be in UTF-8', () => {
    const inside = '<style>.a{fill:url(#g)}</style><use href="#a"/><image href="data:image/png;base64,AA=="/>';
    expect(plainSvg(`<?xml version="1.0" encoding="ISO-8859-1"?>${svg(inside, zz)}`)).toBe(svg(inside, zz));
  });

  test('and nothing is read beside it, even where the check lets something through', async () => {
    const decoders = new Decoders();
    const task = await lying(svg('<rect width="1000" height="1000" fill="#fff"/>'));
    await writeFile(join(task.path, '..', 'known.png'), await chart(10, 10).png().toBuffer());
    const { openable } = await import('../imaging/intake/looking/inspect.ts');
    const handed = await openable(task.path, 'svg');
    expect(Buffer.isBuffer(handed) && handed.equals(await readFile(task.path))).toBe(true);
    decoders.end();
  });
});

test('decoding processes end with the program that started them', async () => {
  const decoders = new Decoders();
  await decoders.copy(await lying(await chart(40, 30).png().toBuffer()), {});
  const pids = decoders.pids();
  expect(pids.length).toBeGreaterThan(0);
  decoders.end();
  while (pids.some(isRunning)) await new Promise((resolve) => setImmediate(resolve));
});
