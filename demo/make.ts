import { execFile } from 'node:child_process';
import { existsSync } from 'node:fs';
import { mkdir, rename, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { promisify } from 'node:util';
import { loaderOf } from '@inkwell/server/running/loader.ts';
import { kitePlan, logo, poster, snapshot } from './art/drawings.ts';
import { fiveFlyers } from './art/flyers.ts';
import { kiteMaker } from './art/maker.ts';
import { panorama } from './art/panorama.ts';

/** The demo's pictures: file name, name for people, and how to make the bytes. The same bytes every time. */
export const pictures = {
  // A large drawing is taken in for as long as the photographs are painted, so that it comes first.
  poster: { file: 'festival-poster.svg', name: 'Festival poster', make: async () => poster() },
  flyers: {
    file: 'five-flyers.jpg',
    name: 'Five flyers',
    make: async () => (await fiveFlyers()).jpeg({ quality: 93 }).toBuffer(),
  },
  panorama: {
    file: 'dune-panorama.jpg',
    name: 'Dune panorama',
    make: async () => (await panorama()).jpeg({ quality: 91 }).toBuffer(),
  },
  maker: {
    file: 'kite-maker.jpg',
    name: 'Kite maker',
    make: async () => (await kiteMaker()).jpeg({ quality: 92 }).toBuffer(),
  },
  plan: {
    file: 'kite-plan.png',
    name: 'Kite plan',
    make: async () => (await kitePlan()).png({ compressionLevel: 6 }).toBuffer(),
  },
  snapshot: {
    file: 'snapshot.jpg',
    name: 'Snapshot',
    make: async () => (await snapshot()).jpeg({ quality: 72 }).toBuffer(),
  },
  logo: { file: 'logo.png', name: 'Logo', make: async () => logo().png().toBuffer() },
} as const;
export type PictureKey = keyof typeof pictures;

const pathOf = (key: PictureKey, folder: string) => join(folder, pictures[key].file);

/** Makes a picture into `folder`, unless it lies there already. Returns its path. */
export async function madePicture(key: PictureKey, folder: string): Promise<string> {
  const path = pathOf(key, folder);
  if (existsSync(path)) return path;
  await mkdir(folder, { recursive: true });
  await writeFile(`${path}.unfinished`, await pictures[key].make());
  await rename(`${path}.unfinished`, path);
  return path;
}

const painter = new URL('./paint.ts', import.meta.url);

/**
 * The same in a process of its own: painting keeps one processor busy for as long as it takes.
 *
 * @throws an Error with what the process said where it could not
 */
export async function paintedAside(key: PictureKey, folder: string): Promise<string> {
  try {
    await promisify(execFile)(process.execPath, [...loaderOf(painter), fileURLToPath(painter), key, folder]);
  } catch (error) {
    const said = error instanceof Error && 'stderr' in error ? String(error.stderr).trim() : '';
    throw new Error(said || `${key} could not be painted.`, { cause: error });
  }
  return pathOf(key, folder);
}
