import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { mkdir, rename, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { type FontBook, openTypeface, type Typeface } from '@inkwell/core/lettering';
import type { FontFamily, FontFile } from '@inkwell/core/model';
import * as shaper from 'harfbuzzjs';
import { LRUCache } from 'lru-cache';
import { shippedFamilies } from './shippedFamilies.ts';

/** Bytes of font files that are kept open: the largest that ship have 10 MB. */
const openBytes = 80_000_000;

/** A font of a person's own, as it is kept. */
interface OwnFont extends Pick<FontFile, 'id' | 'weight' | 'width'> {
  name: string;
  sha256: string;
  isPutAside: boolean;
}

/** The fonts that ship with the program, and the files of those that people have added. */
export class Fonts {
  /** Those that ship. */
  readonly shipped: FontBook;
  private readonly paths: Map<string, string>;
  private readonly known = new LRUCache<string, { typeface: Typeface; bytes: number }>({
    maxSize: openBytes,
    sizeCalculation: ({ bytes }) => bytes,
  });

  /** @param folder for the files of people's own fonts, which are fetched when they are first heard of */
  constructor(private readonly folder: string) {
    const { families, paths } = shippedFamilies();
    this.shipped = { families, open: this.open };
    this.paths = new Map(paths);
  }

  /**
   * The fonts that ship and those that people have added.
   *
   * @param fetch writes the bytes of a font file to a path
   */
  async bookWith(fonts: readonly OwnFont[], fetch: (sha256: string, path: string) => Promise<void>): Promise<FontBook> {
    const added = fonts.filter(({ id }) => !this.paths.has(id));
    if (added.length > 0) await mkdir(this.folder, { recursive: true, mode: 0o700 });
    for (const { id, sha256 } of added) {
      const [path, unfinished] = [join(this.folder, `${id}.font`), join(this.folder, `${randomUUID()}.part`)];
      // Whole or not at all: another process may be writing the same one.
      try {
        await fetch(sha256, unfinished);
        await rename(unfinished, path);
      } finally {
        await rm(unfinished, { force: true });
      }
      this.paths.set(id, path);
    }
    const own = fonts.map(
      ({ id, name, weight, width, isPutAside }): FontFamily => ({
        id,
        name,
        kind: 'your own',
        isHidden: isPutAside,
        isOwn: true,
        files: [{ id, weight, width }],
      }),
    );
    return { families: [...this.shipped.families, ...own], open: this.open };
  }

  /** Where a font file lies; null where there is no such file. */
  pathOf(id: string): string | null {
    return this.paths.get(id) ?? null;
  }

  private readonly open: FontBook['open'] = ({ file, weight, width }) => {
    const key = `${file.id} ${weight} ${width}`;
    const there = this.known.get(key);
    if (there) return there.typeface;
    const path = this.pathOf(file.id);
    if (!path) return null;
    const bytes = readFileSync(path);
    const typeface = openTypeface(shaper, bytes, { weight, width });
    this.known.set(key, { typeface, bytes: bytes.length });
    return typeface;
  };
}
