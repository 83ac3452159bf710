import { randomUUID } from 'node:crypto';
import { mkdir, readFile, rename, rm, utimes, writeFile } from 'node:fs/promises';
import { basename, join } from 'node:path';
import type { Dimensions } from '@inkwell/core/model';
import { levelCount, levelDimensions, type Orientation, OrientationSchema } from '@inkwell/core/planning';
import sharp from 'sharp';
import { z } from 'zod';
import type { BoundedFolder } from './boundedFolder.ts';
import { damaged } from './damaged.ts';
import { type Inspected, inspect } from './inspect.ts';

/** The pixels of an original as they are stored, in sRGB with 8 bits a channel, at full resolution and halved again and again. */
export interface WorkingCopy {
  /** The folder that holds a file for each level. */
  path: string;
  /** How many levels it has, at least 1. */
  levels: number;
  /** How its pixels have to be turned to stand upright. */
  orientation: Orientation;
}

// A file name can come to hold other pixels, so libvips must not remember what it read under a name.
sharp.cache(false);

/** What is known of a working copy beside its pixels, in a file that is written last. */
const DescriptionSchema = z.object({ levels: z.int().positive(), orientation: OrientationSchema });
const descriptionFile = 'copy.json';

/** Pictures of more pixels than this are not read back whole from their own level 0. */
const mappedPixels = 100_000_000;

/** What a working copy is of: a page or frame of a file. */
export interface Source {
  sha256: string;
  /** From 0. */
  page: number;
}

/** The file of one level. libvips maps its own uncompressed format into memory instead of reading it, which is what makes a cut cheap. */
const levelFile = (level: number) => `${level}.v`;

/** The file that holds the pixels of a level. */
export const levelPath = (copy: WorkingCopy, level: number): string => join(copy.path, levelFile(level));

/**
 * Decodes a picture whole, row by row, into the folder `to`. This is also what proves that a picture is complete. The
 * pixels stay in the order in which they are stored: turning hundreds of megapixels would take memory for all of
 * them, while turning what is rendered takes next to nothing.
 *
 * A level is halved from the one before with the kernel that rendering uses. Averaging two by two pixels would be
 * quicker and costs sharpness: a picture rendered from such a level shows a tenth less energy at its edges.
 *
 * @throws Refusal where the picture ends too early or is damaged
 */
export async function makeWorkingCopy(from: string, inspected: Inspected, to: string): Promise<WorkingCopy> {
  await mkdir(to, { recursive: true });
  const decoding = {
    limitInputPixels: false,
    failOn: 'error' as const,
    // What another decoder has written holds the one page.
    page: inspected.readable === from ? inspected.page : 0,
    ...(inspected.density ? { density: inspected.density } : {}),
  };
  let stored: Dimensions;
  try {
    stored = await sharp(inspected.readable, decoding)
      .toColourspace('srgb')
      .toFile(join(to, levelFile(0)));
  } catch (error) {
    throw damaged(inspected.format, error);
  }
  const levels = levelCount(stored);
  for (let level = 1; level < levels; level += 1) {
    const { width, height } = levelDimensions(stored, level);
    // What is read of a mapped file counts as the program's memory: a vast picture is rather decoded once more.
    const again = level === 1 && stored.width * stored.height > mappedPixels;
    const before = again
      ? sharp(inspected.readable, decoding).toColourspace('srgb')
      : sharp(join(to, levelFile(level - 1)), { limitInputPixels: false });
    await before
      .resize(width, height, { fit: 'fill', kernel: 'lanczos3', fastShrinkOnLoad: false })
      .toFile(join(to, levelFile(level)));
  }
  const description = { levels, orientation: inspected.orientation };
  await writeFile(join(to, descriptionFile), JSON.stringify(description));
  return { path: to, ...description };
}

/** Gives a finished folder its name. Where the same picture came in twice at once, the one that was there first stays. */
async function putInPlace(finished: string, path: string): Promise<void> {
  try {
    await rename(finished, path);
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== 'ENOTEMPTY') throw error;
  }
}

/** Removes a file that was inspected, with what another decoder has made of it. */
export async function removeReadable(path: string): Promise<void> {
  await rm(path, { force: true });
  await rm(`${path}.png`, { force: true });
}

/** Opens a working copy. */
export async function openWorkingCopy(path: string): Promise<WorkingCopy> {
  const description: unknown = JSON.parse(await readFile(join(path, descriptionFile), 'utf8'));
  return { path, ...DescriptionSchema.parse(description) };
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

  private path({ sha256, page }: Source) {
    return join(this.folder.path, page === 0 ? sha256 : `${sha256}-${page}`);
  }

  /** The working copy of an original; waits until it is made where it is not there. */
  async get(source: Source): Promise<WorkingCopy> {
    const path = this.path(source);
    if (await this.folder.touch(basename(path))) return this.open(path);
    const known = this.making.get(path);
    if (known) return known;
    const made = this.make(source).finally(() => this.making.delete(path));
    this.making.set(path, made);
    return made;
  }

  /** Whether anything of a picture is transparent: seen on its smallest level, where a single pixel still leaves its mark. */
  async isTransparent(source: Source): Promise<boolean> {
    const copy = await this.get(source);
    return !(await sharp(levelPath(copy, copy.levels - 1)).stats()).isOpaque;
  }

  /** Makes the working copy of a file that is just coming in, before anything is stored. */
  async prepare(source: Source, from: string, inspected: Inspected): Promise<void> {
    const path = this.path(source);
    if (await this.folder.touch(basename(path))) return;
    const unfinished = join(this.folder.path, `unfinished-${randomUUID()}`);
    try {
      await makeWorkingCopy(from, inspected, unfinished);
      await putInPlace(unfinished, path);
      await utimes(path, new Date(), new Date());
    } finally {
      await rm(unfinished, { recursive: true, force: true });
    }
    await this.folder.noteAdded();
  }

  private async make(source: Source): Promise<WorkingCopy> {
    const original = join(this.folder.path, `unfinished-${randomUUID()}`);
    try {
      await this.fetch(source.sha256, original);
      await this.prepare(source, original, await inspect(original, source.page));
    } finally {
      await removeReadable(original);
    }
    return this.open(this.path(source));
  }

  private async open(path: string): Promise<WorkingCopy> {
    const known = this.opened.get(path);
    if (known) return known;
    const copy = await openWorkingCopy(path);
    this.opened.set(path, copy);
    return copy;
  }
}
