import { type FontFamily, FontFamilySchema } from '@inkwell/core/model';
import { z } from 'zod';
import { api, ask, sendFile, tell } from '../client.ts';

/** The fonts that words can be set in. */
export const askFamilies = () => ask(z.array(FontFamilySchema), '/fonts');

/** The bytes of a font file. @throws where they do not come */
export async function fontBytes(id: string): Promise<Uint8Array> {
  const response = await fetch(`${api}/fonts/files/${encodeURIComponent(id)}`);
  if (!response.ok) throw new Error(`The font ${id} did not come: ${response.status}.`);
  return new Uint8Array(await response.arrayBuffer());
}

/** Adds a font of one's own. @throws ApiError where it is none that can be used */
export const addFont = (file: File): Promise<FontFamily> => sendFile(FontFamilySchema, '/fonts', file);

/** Puts a font aside, so that it is not offered any more, or takes it back. */
export const putFontAside = (id: string) => tell(`/fonts/${id}`, { method: 'DELETE' });
export const takeFontBack = (id: string) => tell(`/fonts/${id}/restore`, { method: 'POST' });
