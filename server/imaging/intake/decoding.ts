import type { Original } from '@inkwell/core/model';
import sharp from 'sharp';
import { levelPath } from '../copies/workingCopy.ts';
import { colourManaged } from './colourManaged.ts';
import { inspect, openable } from './looking/inspect.ts';
import { type ReadMetadata, readMetadata } from './looking/readMetadata.ts';
import { makeWorkingCopy } from './makeCopy.ts';

/** What a file is, once it has been decoded whole. */
export interface Decoded
  extends ReadMetadata,
    Pick<Original, 'format' | 'page' | 'pages' | 'width' | 'height' | 'hasAlpha'> {}

/** Something that is done with a file from outside. The file lies alone in its folder. */
export type DecodingTask =
  /** Decodes a page into the folder `to`, as a working copy. */
  | { kind: 'copy'; path: string; page: number; to: string }
  /** Draws a small JPEG of a page, to the file `to`. */
  | { kind: 'preview'; path: string; page: number; to: string };

const previewSide = 320;

/** Makes the working copy of a page in the folder `to` and says what it is. @throws UserError where it cannot be taken */
export async function decodeCopy(path: string, page: number, to: string): Promise<Decoded> {
  const inspected = await inspect(path, page);
  const copy = await makeWorkingCopy(inspected, to);
  const { format, pages, width, height } = inspected;
  // Many programs write an alpha channel into pictures that are opaque throughout. On the smallest level a single clear pixel
  // still leaves its mark.
  const hasAlpha = inspected.hasAlpha && !(await sharp(levelPath(copy, copy.levels - 1)).stats()).isOpaque;
  return { format, page, pages, width, height, hasAlpha, ...(await readMetadata(path)) };
}

/** @throws UserError where that page is damaged */
export async function decodePreview(path: string, page: number, to: string): Promise<void> {
  const { readable, converted, format, density, colours } = await inspect(path, page);
  const options = { limitInputPixels: false, page: converted ? 0 : page, ...(density ? { density } : {}) };
  await colourManaged(await openable(readable, format), options, colours)
    .autoOrient()
    .resize(previewSide, previewSide, { fit: 'inside' })
    .flatten({ background: '#ffffff' })
    .jpeg({ quality: 80 })
    .toFile(to);
}
