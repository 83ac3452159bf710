import { writeFile } from 'node:fs/promises';
import { crc32, deflateSync } from 'node:zlib';

/** A PNG begins with a signature of eight bytes and a header chunk of 25 (PNG specification, third edition, 5). */
const afterHeader = 8 + 25;

/** Writes a PNG with a colour profile (iCCP chunk) to `to`. @param png without a profile */
export async function writeProfiledPng(png: Buffer, profile: Buffer, to: string): Promise<void> {
  const content = Buffer.concat([Buffer.from('profile\0\0', 'latin1'), deflateSync(profile)]);
  const named = Buffer.concat([Buffer.from('iCCP', 'latin1'), content]);
  const chunk = Buffer.alloc(4 + named.length + 4);
  chunk.writeUInt32BE(content.length, 0);
  named.copy(chunk, 4);
  chunk.writeUInt32BE(crc32(named), 4 + named.length);
  await writeFile(to, Buffer.concat([png.subarray(0, afterHeader), chunk, png.subarray(afterHeader)]));
}
