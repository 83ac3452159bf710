/** The luminance table of JPEG's standard, as it lies in a file (ITU-T T.81, table K.1, in zigzag order). */
const standard = [
  16, 11, 12, 14, 12, 10, 16, 14, 13, 14, 18, 17, 16, 19, 24, 40, 26, 24, 22, 22, 24, 49, 35, 37, 29, 40, 58, 51, 61,
  60, 57, 51, 56, 55, 64, 72, 92, 78, 64, 68, 87, 69, 55, 56, 80, 109, 81, 87, 95, 98, 103, 104, 103, 62, 77, 113, 121,
  112, 100, 120, 92, 101, 103, 99,
];

const [startOfImage, quantisation, startOfScan] = [0xffd8, 0xffdb, 0xffda];

/**
 * The quality, 1..100, at which the common encoders write the luminance table that a JPEG has: the scaling of the standard's table by
 * the Independent JPEG Group, turned round. Null of what is no JPEG, or has a table of another making.
 */
export function jpegQuality(data: Buffer): number | null {
  const table = luminanceTable(data);
  if (!table) return null;
  for (let quality = 100; quality >= 1; quality -= 1) {
    const scale = quality < 50 ? 5000 / quality : 200 - 2 * quality;
    const isSame = standard.every((value, at) => {
      const scaled = Math.min(255, Math.max(1, Math.floor((value * scale + 50) / 100)));
      return scaled === table[at];
    });
    if (isSame) return quality;
  }
  return null;
}

/** The first table of a JPEG, of 8 bits a value. */
function luminanceTable(data: Buffer): Buffer | null {
  if (data.length < 4 || data.readUInt16BE(0) !== startOfImage) return null;
  for (let at = 2; at + 4 <= data.length; ) {
    const marker = data.readUInt16BE(at);
    const length = data.readUInt16BE(at + 2);
    if (marker === startOfScan || marker >> 8 !== 0xff) return null;
    if (marker === quantisation && data[at + 4] === 0 && at + 5 + standard.length <= data.length) {
      return data.subarray(at + 5, at + 5 + standard.length);
    }
    at += 2 + length;
  }
  return null;
}
