import { inflateSync } from 'node:zlib';
import type { Shaper } from '@inkwell/core/lettering';
import { fontRanges } from '@inkwell/core/model';
import fontEditor from 'fonteditor-core';
import { fontName } from './fontName.ts';

/** What was found in a font file, or why it cannot be taken. */
export type FontFound = { data: Uint8Array; name: string | null; weight: Range; width: Range } | { problem: string };

interface Range {
  least: number;
  most: number;
}

/** Bytes of a font once it is unpacked. */
const mostUnpacked = 40_000_000;
/** A letter of more steps than this is no letter: fonts for text have some dozens. */
const mostSteps = 4000;
/** So many of a font's characters are looked at, evenly spread. */
const lookedAt = 400;

/** Per cent of the normal width by width class (OS/2 table, OpenType 1.9.1). */
const widthClasses = [50, 62.5, 75, 87.5, 100, 112.5, 125, 150, 200];

class NoFont extends Error {}

/** Unpacks a font file and looks at what it holds. It runs in a thread of its own: damaged files can make it slow. */
export default async function readFontFile(file: Uint8Array): Promise<FontFound> {
  try {
    const data = await unpacked(Buffer.from(file));
    // Threads load modules as CommonJS, which this one, that waits for its WebAssembly, is not.
    return { data, ...lookInto(data, await import('harfbuzzjs')) };
  } catch (error) {
    return {
      problem:
        error instanceof NoFont ? error.message : 'The file is damaged, or is no font. Get it again from its source.',
    };
  }
}

async function unpacked(file: Buffer): Promise<Uint8Array> {
  const signature = file.subarray(0, 4).toString('latin1');
  if (['\0\x01\0\0', 'OTTO', 'true'].includes(signature)) return file;
  if (signature === 'ttcf') {
    throw new NoFont('This is a collection of several fonts. Save the one that you want as a file of its own.');
  }
  if (signature !== 'wOFF' && signature !== 'wOF2') {
    throw new NoFont('This is no font that is taken: TTF, OTF, WOFF and WOFF2 are.');
  }
  if (file.length < 20 || file.readUInt32BE(16) > mostUnpacked) throw tooLarge();
  const packed = new Uint8Array(file).buffer;
  const font =
    signature === 'wOFF'
      ? fontEditor.woff2ttf(packed, { inflate })
      : await fontEditor.woff2.init().then((decoder) => decoder.decode(packed));
  const data = new Uint8Array(font);
  if (data.length > mostUnpacked) throw tooLarge();
  return data;
}

const tooLarge = () => new NoFont(`Unpacked this font has more than ${mostUnpacked / 1e6} MB, the most that is taken.`);

const inflate = (bytes: number[]): number[] => [
  ...inflateSync(Uint8Array.from(bytes), { maxOutputLength: mostUnpacked }),
];

function lookInto(data: Uint8Array, shaper: Shaper): Omit<Exclude<FontFound, { problem: string }>, 'data'> {
  const face = new shaper.Face(new shaper.Blob(data));
  const characters = face.upem > 0 ? face.collectUnicodes() : new Uint32Array();
  if (characters.length === 0)
    throw new NoFont('There is no character in this font, or it is damaged. Get it again from its source.');
  const font = new shaper.Font(face);
  const step = Math.max(1, Math.floor(characters.length / lookedAt));
  let drawn = 0;
  for (let at = 0; at < characters.length; at += step) {
    const glyph = font.glyph(characters[at] as number);
    const steps = glyph ? font.glyphToJson(glyph).length : 0;
    if (steps > mostSteps) throw new NoFont('The letters of this font are too intricate to be drawn in every frame.');
    if (steps > 0) drawn += 1;
  }
  if (drawn === 0) throw new NoFont('The letters of this font are pictures. Only fonts with outlines are taken.');
  const axes = face.getAxisInfos();
  const about = face.referenceTable('OS/2');
  const fixed = about && about.length >= 8 ? new DataView(about.buffer, about.byteOffset, about.byteLength) : null;
  const names = face.referenceTable('name');
  return {
    name: names ? fontName(names) : null,
    weight: rangeOf(axes.wght, fixed?.getUint16(4) ?? 400, fontRanges.weight),
    width: rangeOf(axes.wdth, widthClasses[(fixed?.getUint16(6) ?? 5) - 1] ?? 100, fontRanges.width),
  };
}

/** What a font has of an axis: a range where it is variable, else what it says it is. */
function rangeOf(axis: { min: number; max: number } | undefined, fixed: number, { least, most }: Range): Range {
  const within = (value: number) => Math.min(most, Math.max(least, value));
  return { least: within(axis?.min ?? fixed), most: within(axis?.max ?? fixed) };
}
