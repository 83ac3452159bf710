import { readdirSync, readFileSync } from 'node:fs';
import {
  type Frame,
  type FrameSettings,
  type Original,
  type PlaceOfNetwork,
  placesById,
  type SpecSheet,
  SpecSheetSchema,
} from '@inkwell/core/model';
import { planFrame, type RenderPlan } from '@inkwell/core/planning';

/** The spec book: all sheets, and their places by id. */
export interface PlaceBook {
  sheets: SpecSheet[];
  places: Map<string, PlaceOfNetwork>;
  /** The plan of a frame as it is set; null where its place is no longer in the book. */
  planOf(frame: FrameSettings & Pick<Frame, 'placeId'>, original: Original): RenderPlan | null;
}

/** The order in which networks are shown. */
const order = ['sunpane', 'pipwire', 'candlecast', 'guildrow', 'corkmoor', 'hearthring', 'quillpost', 'stallfront'];

/** Reads and validates the sheets that ship with the program. @throws where one of them is not as the schema says */
export function loadPlaceBook(): PlaceBook {
  const folder = new URL('./sheets/', import.meta.url);
  const sheets = readdirSync(folder)
    .map((name) => SpecSheetSchema.parse(JSON.parse(readFileSync(new URL(name, folder), 'utf8'))))
    .sort((a, b) => order.indexOf(a.slug) - order.indexOf(b.slug));
  const places = placesById(sheets);
  return {
    sheets,
    places,
    planOf(frame, original) {
      const found = places.get(frame.placeId);
      return found ? planFrame({ original, place: found.place, settings: frame }) : null;
    },
  };
}
