import { randomUUID } from 'node:crypto';
import { rename, rm, utimes } from 'node:fs/promises';
import { basename, join } from 'node:path';
import type { Dimensions } from '@inkwell/core/model';
import { type Orientation, OrientationSchema } from '@inkwell/core/planning';
import sharp from 'sharp';
import type { BoundedFolder } from './boundedFolder.ts';
import { damaged, type Inspected, inspect } from './inspect.ts';

/** The pixels of an original as they are stored, in sRGB with 8 bits a channel, at full resolution and halved again and again. */
export interface WorkingCopy {
  path: string;
  /** How many levels it has: level k is page k of the file. */
  levels: number;
  /** How its pixels have to be turned to stand upright. */
  orientation: Orientation;
}

// A file name can come to hold other pixels, so libvips must not remember what it read under a name.
sharp.cache(false);

/** Pixels along the side of a tile. libvips cannot read tiles back that are much larger than the picture. */
const tileFor = ({ width, height }: Dimensions) => (Math.max(width, height) < 512 ? 64 : 512);

/**
 * Decodes a picture whole, row by row, into a tiled file. This is also what proves that a picture is complete. The
 * pixels stay in the order in which they are stored: turning hundreds of megapixels would take memory for all of
 * them, while turning what is rendered takes next to nothing. The file carries the orientation tag along.
 *
 * @throws Refusal where the picture ends too early or is damaged
 */
export async function makeWorkingCopy(from: string, inspected: Inspected, to: string): Promise<void> {
  const tile = tileFor(inspected);
  try {
    const decoded = sharp(from, {
      limitInputPixels: false,
      failOn: 'error',
      ...(inspected.density ? { density: inspected.density } : {}),
    }).toColourspace('srgb');
    // Keeping metadata costs a pass over all pixels, so only a picture that needs its tag keeps it.
    const tagged = inspected.orientation === 1 ? decoded : decoded.withMetadata({ orientation: inspected.orientation });
    await tagged
      .tiff({ compression: 'none', tile: true, tileWidth: tile, tileHeight: tile, pyramid: true, bigtiff: true })
      .toFile(to);
  } catch (error) {
    throw damaged(inspected.format, error);
  }
}

/** Opens a working copy file. */
export async function openWorkingCopy(path: string): Promise<WorkingCopy> {
  const { pages = 1, orientation = 1 } = await sharp(path, { limitInputPixels: false }).metadata();
  return { path, levels: pages, orientation: OrientationSchema.parse(orientation) };
}

/** Working copies on local disk, by the original's hash. They may vanish at any time and are made again from the bytes. */
export class WorkingCopies {
  private readonly making = new Map<string, Promise<WorkingCopy>>();
  private readonly opened = new Map<string, WorkingCopy>();

  /** @param fetch writes the original's bytes into a file */
  constructor(
    private readonly folder: BoundedFolder,
    private readonly fetch: (sha256: string, path: string) => Promise<void>,
  ) {}

  private path(sha256: string) {
    return join(this.folder.path, `${sha256}.tif`);
  }

  /** The working copy of an original; waits until it is made where it is not there. */
  async get(sha256: string): Promise<WorkingCopy> {
    const path = this.path(sha256);
    if (await this.folder.touch(basename(path))) return this.open(sha256, path);
    const known = this.making.get(sha256);
    if (known) return known;
    const made = this.make(sha256).finally(() => this.making.delete(sha256));
    this.making.set(sha256, made);
    return made;
  }

  /** Makes the working copy of a file that is just coming in, before anything is stored. */
  async prepare(sha256: string, from: string, inspected: Inspected): Promise<void> {
    const path = this.path(sha256);
    if (await this.folder.touch(basename(path))) return;
    const unfinished = join(this.folder.path, `unfinished-${randomUUID()}.tif`);
    try {
      await makeWorkingCopy(from, inspected, unfinished);
      await rename(unfinished, path);
      await utimes(path, new Date(), new Date());
    } finally {
      await rm(unfinished, { force: true });
    }
    await this.folder.noteAdded();
  }

  private async make(sha256: string): Promise<WorkingCopy> {
    const original = join(this.folder.path, `unfinished-${randomUUID()}`);
    try {
      await this.fetch(sha256, original);
      await this.prepare(sha256, original, await inspect(original));
    } finally {
      await rm(original, { force: true });
    }
    const path = this.path(sha256);
    return this.open(sha256, path);
  }

  private async open(sha256: string, path: string): Promise<WorkingCopy> {
    const known = this.opened.get(sha256);
    if (known) return known;
    const copy = await openWorkingCopy(path);
    this.opened.set(sha256, copy);
    return copy;
  }
}
