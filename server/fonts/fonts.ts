import { readFileSync } from 'node:fs';
import { type FontBook, openTypeface, type Typeface } from '@inkwell/core/lettering';
import type { FontFamily } from '@inkwell/core/model';
import * as shaper from 'harfbuzzjs';
import { LRUCache } from 'lru-cache';
import { shippedFamilies } from './shippedFamilies.ts';

/** Bytes of font files that are kept open: the largest that ship have 10 MB. */
const openBytes = 80_000_000;

/** The fonts that ship with the program. */
export class Fonts implements FontBook {
  readonly families: readonly FontFamily[];
  private readonly paths: ReadonlyMap<string, string>;
  private readonly open_ = new LRUCache<string, { typeface: Typeface; bytes: number }>({
    maxSize: openBytes,
    sizeCalculation: ({ bytes }) => bytes,
  });

  constructor() {
    const { families, paths } = shippedFamilies();
    this.families = families;
    this.paths = paths;
  }

  /** Where a font file lies; null where there is no such file. */
  pathOf(id: string): string | null {
    return this.paths.get(id) ?? null;
  }

  open: FontBook['open'] = ({ file, weight, width }) => {
    const key = `${file.id} ${weight} ${width}`;
    const there = this.open_.get(key);
    if (there) return there.typeface;
    const path = this.pathOf(file.id);
    if (!path) return null;
    const bytes = readFileSync(path);
    const typeface = openTypeface(shaper, bytes, { weight, width });
    this.open_.set(key, { typeface, bytes: bytes.length });
    return typeface;
  };
}
