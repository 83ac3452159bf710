import { readdirSync, readFileSync } from 'node:fs';
import { type PlaceOfNetwork, placesById, type SpecSheet, SpecSheetSchema } from '@inkwell/core/model';

/** The order in which networks are shown. */
const order = ['sunpane', 'pipwire', 'candlecast', 'guildrow', 'corkmoor', 'hearthring', 'quillpost', 'stallfront'];

/** Reads and validates the sheets that ship with the program. @throws where one of them is not as the schema says */
export function shippedSheets(): SpecSheet[] {
  const folder = new URL('./sheets/', import.meta.url);
  return readdirSync(folder)
    .map((name) => SpecSheetSchema.parse(JSON.parse(readFileSync(new URL(name, folder), 'utf8'))))
    .sort((a, b) => order.indexOf(a.slug) - order.indexOf(b.slug));
}

/** Their places by id. */
export const shippedPlaces = (): Map<string, PlaceOfNetwork> => placesById(shippedSheets());
