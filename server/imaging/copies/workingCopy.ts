import { mkdir, readFile, rename, rm, utimes } from 'node:fs/promises';
import { basename, join } from 'node:path';
import { type Orientation, OrientationSchema, type RenderPlan } from '@inkwell/core/planning';
import sharp from 'sharp';
import { z } from 'zod';
import { timed } from '../../running/counting.ts';
import type { BoundedFolder } from './boundedFolder.ts';

/** The pixels of an original as they are stored, in sRGB with 8 bits a channel, at full resolution and halved again and again. */
export interface WorkingCopy {
  /** The folder that holds a file for each level. */
  path: string;
  /** How many levels it has, at least 1. */
  levels: number;
  /** How its pixels have to be turned to stand upright. */
  orientation: Orientation;
}

/** What a plan is drawn from: the working copy of its original, and those of the emblems over it, by `copyKey`. */
export interface PlanCopies extends WorkingCopy {
  emblems: ReadonlyMap<string, WorkingCopy>;
}

/** What a working copy is called among those of a plan. */
export const copyKey = ({ sha256, page }: Source) => `${sha256} ${page}`;

// A file name can come to hold other pixels, so libvips must not remember what it read under a name.
sharp.cache(false);

/** What is known of a working copy beside its pixels, in a file that is written last. */
const DescriptionSchema = z.object({ levels: z.int().positive(), orientation: OrientationSchema });
/** The file that says what a working copy is; written last. */
export const descriptionFile = 'copy.json';

/** What a working copy is of: a page or frame of a file. */
export interface Source {
  sha256: string;
  /** From 0. */
  page: number;
}

/** The file of one level. libvips maps its own uncompressed format into memory instead of reading it, which is what makes a cut cheap. */
export const levelFile = (level: number) => `${level}.v`;

/** The file that holds the pixels of a level. */
export const levelPath = (copy: WorkingCopy, level: number): string => join(copy.path, levelFile(level));

/** Gives a finished folder its name. Where the same picture came in twice at once, the one that was there first stays. */
async function putInPlace(finished: string, path: string): Promise<void> {
  try {
    await rename(finished, path);
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== 'ENOTEMPTY') throw error;
  }
}

/** Opens a working copy. */
export async function openWorkingCopy(path: string): Promise<WorkingCopy> {
  const description: unknown = JSON.parse(await readFile(join(path, descriptionFile), 'utf8'));
  return { path, ...DescriptionSchema.parse(description) };
}

/** Grows when decoding gives other pixels, so that what an older program has left is made anew. */
const copyVersion = 2;
const folderNames = new RegExp(`^v${copyVersion}-[0-9a-f]{64}(-[0-9]+)?$`);

/** Makes working copies out of files; see `Decoders`. */
export interface CopyMaker {
  /** Decodes a page of the file at `path` into the folder `to`. */
  copy(task: { path: string; page: number; to: string }): Promise<unknown>;
}

/** Working copies on local disk, by the original's hash. They may vanish at any time and are made again from the bytes. */
export class WorkingCopies {
  private readonly making = new Map<string, Promise<WorkingCopy>>();
  private readonly opened = new Map<string, WorkingCopy>();

  private constructor(
    private readonly folder: BoundedFolder,
    private readonly fetch: (sha256: string, path: string) => Promise<void>,
    private readonly maker: CopyMaker,
  ) {}

  /**
   * Opens a folder of working copies and removes what is no whole one of this version.
   *
   * @param fetch writes the original's bytes into a file
   */
  static async open(
    folder: BoundedFolder,
    fetch: (sha256: string, path: string) => Promise<void>,
    maker: CopyMaker,
  ): Promise<WorkingCopies> {
    await folder.removeAllBut((name) => folderNames.test(name));
    return new WorkingCopies(folder, fetch, maker);
  }

  private path({ sha256, page }: Source) {
    return join(this.folder.path, `v${copyVersion}-${sha256}${page === 0 ? '' : `-${page}`}`);
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

  /** All working copies that a plan is drawn from. */
  async forPlan({ original, lettering }: Pick<RenderPlan, 'original' | 'lettering'>): Promise<PlanCopies> {
    const pictures = (lettering?.layers ?? []).flatMap((layer) => (layer.kind === 'picture' ? [layer.picture] : []));
    const emblems = new Map<string, WorkingCopy>();
    for (const picture of pictures) emblems.set(copyKey(picture), await this.get(picture));
    return { ...(await this.get(original)), emblems };
  }

  /** A folder for what is not finished yet; `keep` gives it its name. */
  unfinished(): string {
    return this.folder.unfinished();
  }

  /** Takes a finished folder over as the working copy of an original. */
  async keep(source: Source, finished: string): Promise<void> {
    const path = this.path(source);
    await putInPlace(finished, path);
    await utimes(path, new Date(), new Date());
    await this.folder.noteAdded();
  }

  private async make(source: Source): Promise<WorkingCopy> {
    const [original, to] = [this.folder.unfinished(), this.folder.unfinished()];
    try {
      await mkdir(original);
      const path = join(original, 'picture');
      await this.fetch(source.sha256, path);
      await timed('decode', () => this.maker.copy({ path, page: source.page, to }));
      await this.keep(source, to);
    } finally {
      await rm(original, { recursive: true, force: true });
      await rm(to, { recursive: true, force: true });
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
