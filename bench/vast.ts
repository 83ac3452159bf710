import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { type ImageFormat, plainWeighing } from '@inkwell/core/model';
import type { Client } from '@inkwell/server/testing/programs/client.ts';
import sharp, { type Sharp } from 'sharp';
import { z } from 'zod';
import { Program } from './program.ts';

/** What it took: the peak memory of all processes, and of the worker and what it has started, in MB of 1,000,000 bytes; the time. */
interface Vast {
  megabytes: number;
  ofWorker: number;
  seconds: number;
}

const panels = 20;
const widePlace = 'sunpane/swipe-panels-portrait';
/** The most that a frame may have: see `frameBounds` in core. */
const largestSide = 6000;

/** Coarse noise of any dimensions as a JPEG, made from an eighth of them. */
async function vastPicture(width: number, height: number): Promise<Sharp> {
  const small = await sharp({
    create: {
      width: width / 8,
      height: height / 8,
      channels: 3,
      background: '#888',
      noise: { type: 'gaussian', mean: 128, sigma: 40 },
    },
  })
    .png({ compressionLevel: 1 })
    .toBuffer();
  return sharp(small).resize(width, height, { kernel: 'nearest' }).jpeg({ quality: 85 });
}

/** Does something with a picture in a program of its own, with empty caches, and says what that took. */
async function vast(picture: Sharp, task: (client: Client, path: string) => Promise<unknown>): Promise<Vast> {
  const folder = await mkdtemp(join(tmpdir(), 'inkwell-vast-'));
  const program = await Program.start();
  try {
    const path = join(folder, 'vast.jpg');
    await picture.toFile(path);
    const began = performance.now();
    await task(program.client, path);
    const seconds = (performance.now() - began) / 1000;
    return { megabytes: program.peakMegabytes(), ofWorker: program.peakWorkerMegabytes(), seconds };
  } finally {
    await program.stop();
    await rm(folder, { recursive: true, force: true });
  }
}

/** Delivers one frame of a picture, set in a way of its own. */
async function deliverOne(client: Client, path: string, placeId: string, change: object): Promise<void> {
  const { id, frames } = await client.project('Vast', [await client.file(path)], [placeId]);
  await client.ask('PATCH', `/frames/${frames[0]?.id}`, { version: 1, change });
  await client.measured(id);
  const { files, leftOut } = await client.deliver(id);
  if (files.length === 0 || leftOut.length > 0) throw new Error(`It was left out: ${JSON.stringify(leftOut)}`);
}

/** Takes in a JPEG of 20,000 x 20,000 pixels with a camera's turn. */
const vastImport = async (): Promise<Vast> =>
  vast((await vastPicture(20_000, 20_000)).withMetadata({ orientation: 6 }), (client, path) => client.file(path));

/** Takes in a panorama of 40,000 x 10,000 pixels and delivers it as twenty panels. */
const vastStrip = async (): Promise<Vast> =>
  vast(await vastPicture(40_000, 10_000), (client, path) =>
    deliverOne(client, path, widePlace, { grid: { columns: panels, rows: 1 } }),
  );

/** Takes in a picture of 100 megapixels and delivers it in the largest frame that there is, sharpened. */
const vastFrame = async (format: ImageFormat): Promise<Vast> =>
  vast(await vastPicture(10_000, 10_000), async (client, path) => {
    const place = {
      name: 'Wall of the shed',
      purpose: 'post',
      width: largestSide,
      height: largestSide,
      formats: [format],
      limit: { bytes: 200_000_000, unit: 'MB' },
    };
    const keptIn = { kind: 'sheet', name: 'Workshop' };
    const { placeId } = z
      .object({ placeId: z.string() })
      .parse((await client.ask('POST', '/sheets/places', { place, keptIn })).body);
    // One encoding is enough to see what it takes; to look for the lightest takes the same memory, several times over.
    const weighing = { ...plainWeighing, aim: { kind: 'as good as fits' } };
    await deliverOne(client, path, placeId, { format, weighing, finishId: 'crisp' });
  });

/** What it takes where a picture, a strip or a frame is vast, as a section of the results. */
export async function vastSection(): Promise<string> {
  const formats = ['jpeg', 'png', 'webp', 'avif'] as const;
  const rows = [
    { what: 'a JPEG of 20,000 × 20,000 px with an orientation tag, taken in', took: await vastImport(), most: '1,500' },
    {
      what: `a panorama of 40,000 × 10,000 px, taken in and delivered as ${panels} panels`,
      took: await vastStrip(),
      most: '1,500',
    },
  ];
  for (const format of formats) {
    const what = `a frame of ${largestSide} × ${largestSide} px, sharpened, as ${format.toUpperCase()}`;
    rows.push({ what, took: await vastFrame(format), most: '2,000' });
  }
  const lines = rows.map(
    ({ what, took, most }) =>
      `| ${what} | **${took.megabytes.toFixed(0)} MB** | ${took.ofWorker.toFixed(0)} MB | ${took.seconds.toFixed(0)} s | under ${most} MB |`,
  );
  return `## Vast pictures
From the upload's first byte on.

| what | peak memory of all processes | of the worker | time | aim |
|---|---|---|---|---|
${lines.join('\n')}
`;
}
