import { randomUUID } from 'node:crypto';
import { link, rename, rm } from 'node:fs/promises';
import { join } from 'node:path';
import type { Original } from '@inkwell/core/model';
import sharp from 'sharp';
import type { BoundedFolder } from './boundedFolder.ts';
import { type Inspected, inspect } from './inspect.ts';
import { removeReadable, type WorkingCopies } from './workingCopy.ts';

const previewSide = 320;

/** The pages of a file that holds several pictures. */
export class Pages {
  /** @param fetch writes the original's bytes into a file */
  constructor(
    private readonly folder: BoundedFolder,
    private readonly copies: WorkingCopies,
    private readonly fetch: (sha256: string, path: string) => Promise<void>,
  ) {}

  /** A small JPEG of one page: its path. @throws Refusal where that page is damaged */
  async preview({ sha256 }: Pick<Original, 'sha256'>, page: number): Promise<string> {
    const name = `${sha256}-${page}.jpg`;
    const path = join(this.folder.path, name);
    if (await this.folder.touch(name)) return path;
    await this.withPage(sha256, page, async (file, { readable }) => {
      const unfinished = join(this.folder.path, `unfinished-${randomUUID()}`);
      await sharp(readable, { limitInputPixels: false, page: readable === file ? page : 0 })
        .autoOrient()
        .resize(previewSide, previewSide, { fit: 'inside' })
        .flatten({ background: '#ffffff' })
        .toColourspace('srgb')
        .jpeg({ quality: 80 })
        .toFile(unfinished);
      await rename(unfinished, path);
    });
    await this.folder.noteAdded();
    return path;
  }

  /** Opens one page whole, as an import does, and says what it is. @throws Refusal where it cannot be taken */
  async open({ sha256 }: Pick<Original, 'sha256'>, page: number): Promise<Inspected> {
    return this.withPage(sha256, page, async (file, inspected) => {
      await this.copies.prepare({ sha256, page }, file, inspected);
      return inspected;
    });
  }

  private async withPage<Result>(
    sha256: string,
    page: number,
    use: (file: string, inspected: Inspected) => Promise<Result>,
  ): Promise<Result> {
    // Under a name of its own: what another decoder makes of it lies beside it, and several pages are looked at at once.
    const own = join(this.folder.path, `unfinished-${randomUUID()}`);
    try {
      await link(await this.file(sha256), own);
      return await use(own, await inspect(own, page));
    } finally {
      await removeReadable(own);
    }
  }

  private async file(sha256: string): Promise<string> {
    const path = join(this.folder.path, sha256);
    if (await this.folder.touch(sha256)) return path;
    const unfinished = join(this.folder.path, `unfinished-${randomUUID()}`);
    try {
      await this.fetch(sha256, unfinished);
      await rename(unfinished, path);
    } finally {
      await rm(unfinished, { force: true });
    }
    await this.folder.noteAdded();
    return path;
  }
}
