/** Boxes that hold others, on the way to the colour of an item (ISO/IEC 23008-12 and 14496-12). */
const containers: Record<string, number> = { meta: 4, iprp: 0, ipco: 0 };

/** The first ICC profile of a HEIC file: phones mean Display P3 by theirs. Null where it has none and means sRGB. */
export function heicProfile(file: Buffer): Buffer | null {
  return profileIn(file, 0, file.length);
}

function profileIn(file: Buffer, start: number, end: number): Buffer | null {
  for (let at = start; at + 8 <= end; ) {
    const short = file.readUInt32BE(at);
    const kind = file.toString('latin1', at + 4, at + 8);
    const header = short === 1 ? 16 : 8;
    const length = short === 1 ? Number(file.readBigUInt64BE(at + 8)) : short === 0 ? end - at : short;
    if (length < header || at + length > end) return null;
    const skipped = containers[kind];
    if (skipped !== undefined) {
      const found = profileIn(file, at + header + skipped, at + length);
      if (found) return found;
    }
    if (kind === 'colr' && ['prof', 'rICC'].includes(file.toString('latin1', at + header, at + header + 4))) {
      return file.subarray(at + header + 4, at + length);
    }
    at += length;
  }
  return null;
}
