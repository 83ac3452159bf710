/** The full name of a font, and its family's, in the `name` table (OpenType 1.9.1). */
const wanted = [4, 1] as const;

/**
 * What a font calls itself; null where its `name` table says nothing that can be read.
 *
 * @param table the bytes of its `name` table
 */
export function fontName(table: Uint8Array): string | null {
  const view = new DataView(table.buffer, table.byteOffset, table.byteLength);
  if (view.byteLength < 6) return null;
  const [count, strings] = [view.getUint16(2), view.getUint16(4)];
  for (const wantedId of wanted) {
    for (let at = 6; at + 12 <= Math.min(view.byteLength, 6 + 12 * count); at += 12) {
      const [platform, nameId] = [view.getUint16(at), view.getUint16(at + 6)];
      const [length, offset] = [view.getUint16(at + 8), view.getUint16(at + 10)];
      if (nameId !== wantedId || strings + offset + length > view.byteLength) continue;
      const bytes = table.subarray(strings + offset, strings + offset + length);
      // Platform 1 is that of old Macintoshes, whose letters of names are nearly always ASCII.
      const name = new TextDecoder(platform === 1 ? 'latin1' : 'utf-16be').decode(bytes).trim();
      if (name !== '') return name;
    }
  }
  return null;
}
