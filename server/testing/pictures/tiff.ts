/** Samples of one kind, pixel by pixel. */
export type Samples = Uint8Array | Uint16Array | Float32Array;

/** What of a colour model a TIFF of this kind says (TIFF 6.0, tag 262). */
const photometric = { grey: 1, rgb: 2, cmyk: 5 } as const;
const channelsOf = { grey: 1, rgb: 3, cmyk: 4 } as const;

/** An uncompressed TIFF (TIFF 6.0) of 8 or 16 bits or floating point, with a profile (tag 34675) where one is given. */
export function tiff(
  samples: Samples,
  { width, height }: { width: number; height: number },
  model: keyof typeof photometric,
  profile: Buffer | null = null,
): Buffer {
  const channels = channelsOf[model];
  const pixels = Buffer.from(samples.buffer, samples.byteOffset, samples.byteLength);
  const [short, long, undefined_] = [3, 4, 7];
  const perSample = (value: number) => Buffer.from(Uint16Array.from({ length: channels }, () => value).buffer);
  const one = (value: number) => Buffer.from(Uint32Array.of(value).buffer);
  const kind = samples instanceof Float32Array ? 3 : 1;
  const entries: [tag: number, type: number, count: number, value: Buffer][] = [
    [256, long, 1, one(width)],
    [257, long, 1, one(height)],
    [258, short, channels, perSample(8 * samples.BYTES_PER_ELEMENT)],
    [259, short, 1, one(1)],
    [262, short, 1, one(photometric[model])],
    [273, long, 1, one(0)],
    [277, short, 1, one(channels)],
    [278, long, 1, one(height)],
    [279, long, 1, one(pixels.length)],
    [339, short, channels, perSample(kind)],
    ...(profile ? [[34675, undefined_, profile.length, profile] as [number, number, number, Buffer]] : []),
  ];
  const directory = Buffer.alloc(2 + 12 * entries.length + 4);
  directory.writeUInt16LE(entries.length, 0);
  let at = 8 + directory.length;
  const further: Buffer[] = [];
  for (const [index, [tag, type, count, value]] of entries.entries()) {
    const entry = 2 + 12 * index;
    directory.writeUInt16LE(tag, entry);
    directory.writeUInt16LE(type, entry + 2);
    directory.writeUInt32LE(count, entry + 4);
    if (value.length <= 4) value.copy(directory, entry + 8);
    else {
      const padded = Buffer.concat([value, Buffer.alloc((4 - (value.length % 4)) % 4)]);
      directory.writeUInt32LE(at, entry + 8);
      further.push(padded);
      at += padded.length;
    }
  }
  // The pixels come last; where they begin is known only now.
  directory.writeUInt32LE(at, 2 + 12 * entries.findIndex(([tag]) => tag === 273) + 8);
  const header = Buffer.from([0x49, 0x49, 42, 0, 8, 0, 0, 0]);
  return Buffer.concat([header, directory, ...further, pixels]);
}
