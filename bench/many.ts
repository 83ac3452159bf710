import { spawn } from 'node:child_process';
import { mkdir, mkdtemp, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ChromaSchema } from '@inkwell/core/model';
import { bundled } from '@inkwell/server/bundling/bundle.ts';
import { mapTwoAtATime } from '@inkwell/server/running/mapTwoAtATime.ts';
import { databaseServer, dropDatabase, ownDatabase } from '@inkwell/server/testing/databases.ts';
import sharp from 'sharp';
import { z } from 'zod';
import { memoryOf } from './program.ts';

const count = 100;
/** Ten places of a week. */
const places = [
  'sunpane/portrait-post',
  'sunpane/square-post',
  'sunpane/wide-post',
  'sunpane/story',
  'pipwire/single-image',
  'pipwire/header',
  'candlecast/video-thumbnail',
  'guildrow/feed-image',
  'corkmoor/tall-card',
  'hearthring/cover',
];
const ManifestSchema = z.object({
  files: z.array(z.object({ file: z.string(), quality: z.number(), chroma: ChromaSchema })),
});

/** A picture again and again, each time in other colours. */
async function makePictures(picture: string, folder: string): Promise<string[]> {
  await mkdir(folder);
  const paths = Array.from({ length: count }, (_, at) => join(folder, `${String(at + 1).padStart(3, '0')}.jpg`));
  await mapTwoAtATime(paths, async (path, at) => {
    const other = { hue: Math.round((at * 360) / count), brightness: 0.9 + (0.2 * at) / count };
    await sharp(picture).modulate(other).jpeg({ quality: 92 }).toFile(path);
  });
  return paths;
}

interface Framed {
  seconds: number;
  megabytes: number;
}

/** Runs the command line as a process of its own, with an empty database and empty caches; pictures are not looked at. */
async function framed(pictures: readonly string[], out: string, data: string): Promise<Framed> {
  const database = await ownDatabase(databaseServer(), 'inkwell_bench');
  const env = { ...process.env, DATABASE_URL: database, INKWELL_DATA: data, INKWELL_LOOK: 'off' };
  const words = ['frame', ...pictures, '--places', places.join(','), '--aim', 'fits', '--out', out];
  let most = 0;
  const began = performance.now();
  const child = spawn('node', [bundled('commandLine'), ...words], { env, stdio: ['ignore', 'ignore', 'inherit'] });
  const watching = setInterval(() => {
    most = Math.max(most, memoryOf([child.pid ?? 0]));
  }, 200);
  const code = await new Promise<number | null>((resolve, reject) => child.on('error', reject).on('exit', resolve));
  clearInterval(watching);
  await dropDatabase(database);
  if (code !== 0) throw new Error(`The command ended with ${code}.`);
  return { seconds: (performance.now() - began) / 1000, megabytes: most / 1e6 };
}

interface Alone {
  decoding: number;
  encoding: number;
}

/** Seconds to decode each picture once, and to encode each file once as the manifest says; two at a time. */
async function alone(pictures: readonly string[], out: string): Promise<Alone> {
  const seconds = async (task: () => Promise<unknown>) => {
    const began = performance.now();
    await task();
    return (performance.now() - began) / 1000;
  };
  const decoding = await seconds(() =>
    mapTwoAtATime(pictures, async (path) => {
      await sharp(path).raw().toBuffer();
    }),
  );
  const { files } = ManifestSchema.parse(JSON.parse(await readFile(join(out, 'manifest.json'), 'utf8')));
  let encoding = 0;
  // A hundred files at a time: all pixels at once would not fit into memory.
  for (let from = 0; from < files.length; from += 100) {
    const some = files.slice(from, from + 100);
    const pixels = await Promise.all(
      some.map(({ file }) => sharp(join(out, file)).raw().toBuffer({ resolveWithObject: true })),
    );
    encoding += await seconds(() =>
      mapTwoAtATime(some, async ({ quality, chroma }, at) => {
        const { data, info } = pixels[at] as (typeof pixels)[number];
        await sharp(data, { raw: info }).jpeg({ quality, mozjpeg: true, chromaSubsampling: chroma }).toBuffer();
      }),
    );
  }
  return { decoding, encoding };
}

/** Many pictures through the command line, as a section of the results. */
export async function manySection(picture: string): Promise<string> {
  const folder = await mkdtemp(join(tmpdir(), 'inkwell-many-'));
  try {
    const pictures = await makePictures(picture, join(folder, 'pictures'));
    const out = join(folder, 'out');
    const { seconds, megabytes } = await framed(pictures, out, join(folder, 'data'));
    const { decoding, encoding } = await alone(pictures, out);
    return `## Many pictures through the command line
${count} pictures of 24 megapixels in ${places.length} places, no limit binds: \`inkwell frame … --aim fits\` from its start to its end, in an empty database and
without looking at them, against the sum of decoding each picture once (${decoding.toFixed(0)} s) and encoding each of the ${count * places.length} files once (${encoding.toFixed(0)} s), two at a time.

| time | ratio | peak memory of all its processes | aim |
|---|---|---|---|
| ${seconds.toFixed(0)} s | **${(seconds / (decoding + encoding)).toFixed(2)}** | **${megabytes.toFixed(0)} MB** | at most 1.25, under 2,000 MB |
`;
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}
