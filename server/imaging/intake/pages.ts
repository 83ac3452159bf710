import { link, mkdir, rename, rm } from 'node:fs/promises';
import { join } from 'node:path';
import type { Original } from '@inkwell/core/model';
import type { BoundedFolder } from '../copies/boundedFolder.ts';
import type { WorkingCopies } from '../copies/workingCopy.ts';
import type { Decoded } from './decoding.ts';
import type { Decoders } from './processes/decoders.ts';

/** The pages of a file that holds several pictures. */
export class Pages {
  /** @param fetch writes the original's bytes into a file */
  constructor(
    private readonly folder: BoundedFolder,
    private readonly copies: WorkingCopies,
    private readonly decoders: Decoders,
    private readonly fetch: (sha256: string, path: string) => Promise<void>,
  ) {}

  /** A small JPEG of one page: its path. @throws UserError where that page is damaged */
  async preview({ sha256 }: Pick<Original, 'sha256'>, page: number, signal?: AbortSignal): Promise<string> {
    const name = `${sha256}-${page}.jpg`;
    const path = join(this.folder.path, name);
    if (await this.folder.touch(name)) return path;
    await this.withFile(sha256, async (file) => {
      const unfinished = this.folder.unfinished();
      await this.decoders.preview({ path: file, page, to: unfinished }, { signal });
      await rename(unfinished, path);
    });
    await this.folder.noteAdded();
    return path;
  }

  /** Opens one page whole, as an import does, and says what it is. @throws UserError where it cannot be taken */
  async open({ sha256 }: Pick<Original, 'sha256'>, page: number, signal?: AbortSignal): Promise<Decoded> {
    return this.withFile(sha256, async (path) => {
      const to = this.copies.unfinished();
      try {
        const decoded = await this.decoders.copy({ path, page, to }, { signal });
        await this.copies.keep({ sha256, page }, to);
        return decoded;
      } finally {
        await rm(to, { recursive: true, force: true });
      }
    });
  }

  private async withFile<Result>(sha256: string, use: (file: string) => Promise<Result>): Promise<Result> {
    // In a folder of its own: what another decoder makes of it lies beside it, and several pages are looked at at once.
    const own = this.folder.unfinished();
    try {
      await mkdir(own, { mode: 0o700 });
      const path = join(own, 'picture');
      await link(await this.file(sha256), path);
      return await use(path);
    } finally {
      await rm(own, { recursive: true, force: true });
    }
  }

  private async file(sha256: string): Promise<string> {
    const path = join(this.folder.path, sha256);
    if (await this.folder.touch(sha256)) return path;
    const unfinished = this.folder.unfinished();
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
