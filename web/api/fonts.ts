import { FontFamilySchema } from '@inkwell/core/model';
import { z } from 'zod';
import { ask } from './client.ts';

/** The fonts that words can be set in. */
export const askFamilies = () => ask(z.array(FontFamilySchema), '/fonts');

/** The bytes of a font file. @throws where they do not come */
export async function fontBytes(id: string): Promise<Uint8Array> {
  const response = await fetch(`/api/fonts/files/${encodeURIComponent(id)}`);
  if (!response.ok) throw new Error(`The font ${id} did not come: ${response.status}.`);
  return new Uint8Array(await response.arrayBuffer());
}
