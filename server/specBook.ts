import {
  type Frame,
  type FrameSettings,
  type Original,
  type PlaceOfNetwork,
  placesById,
  type SpecSheet,
} from '@inkwell/core/model';
import { planFrame, type RenderPlan } from '@inkwell/core/planning';
import { shippedSheets } from './standins/shippedSheets.ts';
import type { Database } from './store/database.ts';
import { ownSheets } from './store/ownPlaces.ts';

/** The spec book as it is now: all sheets, and their places by id. */
export interface OpenBook {
  sheets: SpecSheet[];
  places: Map<string, PlaceOfNetwork>;
  /** The plan of a frame as it is set; null where its place is no longer in the book. */
  planOf(frame: FrameSettings & Pick<Frame, 'placeId'>, original: Original): RenderPlan | null;
}

/** The sheets that ship with the program, and those that people made. */
export class SpecBook {
  private readonly shipped = shippedSheets();

  constructor(private readonly db: Database) {}

  /** Read anew each time: another server or worker may have changed it. */
  async open(): Promise<OpenBook> {
    const sheets = [...this.shipped, ...(await ownSheets(this.db))];
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
}
