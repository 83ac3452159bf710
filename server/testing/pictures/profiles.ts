type Colorant = readonly [x: number, y: number, z: number];

/** The colorants of an RGB space, adapted to D50 as ICC profiles want them, and the exponent of its tone curve; null for sRGB's. */
export interface RgbSpace {
  red: Colorant;
  green: Colorant;
  blue: Colorant;
  gamma: number | null;
}

/** IEC 61966-2-1, SMPTE EG 432-1 (with sRGB's curve), IEC 61966-2-5 and ISO 22028-2. */
export const rgbSpaces = {
  srgb: {
    red: [0.43607, 0.22249, 0.01392],
    green: [0.38515, 0.71687, 0.09708],
    blue: [0.14307, 0.06061, 0.7141],
    gamma: null,
  },
  displayP3: {
    red: [0.51512, 0.2412, -0.00105],
    green: [0.29198, 0.69225, 0.04189],
    blue: [0.1571, 0.06657, 0.78407],
    gamma: null,
  },
  opRgb: {
    red: [0.60974, 0.31111, 0.01947],
    green: [0.20528, 0.62567, 0.06087],
    blue: [0.14919, 0.06322, 0.74457],
    gamma: 563 / 256,
  },
  rommRgb: {
    red: [0.79767, 0.28804, 0],
    green: [0.13519, 0.71188, 0],
    blue: [0.03134, 0.00009, 0.82491],
    gamma: 1.8,
  },
} as const satisfies Record<string, RgbSpace>;

const ascii = (text: string) => Buffer.from(text, 'latin1');
function fixed(...values: number[]): Buffer {
  const bytes = Buffer.alloc(values.length * 4);
  for (const [at, value] of values.entries()) bytes.writeInt32BE(Math.round(value * 65_536), at * 4);
  return bytes;
}
const whole = (value: number) => Buffer.from([value >>> 24, value >>> 16, value >>> 8, value]);
const xyz = (values: Colorant) => Buffer.concat([ascii('XYZ '), whole(0), fixed(...values)]);
/** A parametric curve: a plain exponent, or sRGB's with its straight beginning. */
const curve = (gamma: number | null) =>
  gamma === null
    ? Buffer.concat([
        ascii('para'),
        whole(0),
        Buffer.from([0, 3, 0, 0]),
        fixed(2.4, 1 / 1.055, 0.055 / 1.055, 1 / 12.92, 0.04045),
      ])
    : Buffer.concat([ascii('para'), whole(0), Buffer.from([0, 0, 0, 0]), fixed(gamma)]);
const text = (words: string) => {
  const utf16 = Buffer.from(words, 'utf16le').swap16();
  return Buffer.concat([
    ascii('mluc'),
    whole(0),
    whole(1),
    whole(12),
    ascii('enUS'),
    whole(utf16.length),
    whole(28),
    utf16,
  ]);
};

/** An ICC profile (ICC.1:2010, version 4.3) of a display, with the given tags. */
function profile(space: 'RGB ' | 'GRAY', own: [string, Buffer][]): Buffer {
  const tags: [string, Buffer][] = [
    ['desc', text('made for a test')],
    ['cprt', text('none')],
    ['wtpt', xyz([0.9642, 1, 0.82491])],
    ...own,
  ];
  const table = Buffer.alloc(4 + 12 * tags.length);
  table.writeUInt32BE(tags.length, 0);
  const parts: Buffer[] = [];
  let at = 128 + table.length;
  for (const [index, [name, data]] of tags.entries()) {
    const padded = Buffer.concat([data, Buffer.alloc((4 - (data.length % 4)) % 4)]);
    table.write(name, 4 + 12 * index, 'latin1');
    table.writeUInt32BE(at, 8 + 12 * index);
    table.writeUInt32BE(data.length, 12 + 12 * index);
    parts.push(padded);
    at += padded.length;
  }
  const header = Buffer.alloc(128);
  header.writeUInt32BE(at, 0);
  header.writeUInt32BE(0x04300000, 8);
  header.write(`mntr${space}XYZ `, 12, 'latin1');
  header.write('acsp', 36, 'latin1');
  fixed(0.9642, 1, 0.82491).copy(header, 68);
  return Buffer.concat([header, table, ...parts]);
}

/** The profile of an RGB space. */
export function rgbProfile({ red, green, blue, gamma }: RgbSpace): Buffer {
  const tone = curve(gamma);
  return profile('RGB ', [
    ['rXYZ', xyz(red)],
    ['gXYZ', xyz(green)],
    ['bXYZ', xyz(blue)],
    ['rTRC', tone],
    ['gTRC', tone],
    ['bTRC', tone],
  ]);
}

/** The profile of grey with a plain exponent as its tone curve. */
export const greyProfile = (gamma: number): Buffer => profile('GRAY', [['kTRC', curve(gamma)]]);
