import { type ResolvedFinish, resolveFinish } from '@inkwell/core/finishing';
import { marksOnPicture, pictureBox } from '@inkwell/core/geometry';
import {
  type Finish,
  isMust,
  type KeepMark,
  type PlaceOfNetwork,
  placesById,
  type SpecSheet,
} from '@inkwell/core/model';
import { detailHash, planFrame, planHash, type RenderPlan } from '@inkwell/core/planning';
import { shippedSheets } from './standins/shippedSheets.ts';
import type { Database } from './store/database.ts';
import { listFinishes } from './store/finishes.ts';
import type { FramedPicture } from './store/frames.ts';
import { ownSheets } from './store/ownPlaces.ts';

/** What frames are planned from as it is now: all sheets of the spec book, their places by id, and the finishes. */
export interface Planning {
  sheets: SpecSheet[];
  places: Map<string, PlaceOfNetwork>;
  /** Finishes that people made. */
  finishes: Finish[];
  /** How a frame is finished. */
  finishOf(framed: FramedPicture): ResolvedFinish;
  /** The plan of a frame as it is set; null where its place is no longer in the book. */
  planOf(framed: FramedPicture): RenderPlan | null;
  /** What is measured of a frame as it is set; null where its place is no longer in the book. */
  measuringOf(framed: FramedPicture): Measuring | null;
}

/** What of a frame takes pixels to know. */
export interface Measuring {
  plan: RenderPlan;
  planHash: string;
  detail: {
    /** Must be recognised at all of `shownWidths`. */
    marks: KeepMark[];
    shownWidths: number[];
    hash: string;
  };
}

/** Plans frames from the sheets and finishes that ship with the program, and from those that people made. */
export class Planner {
  private readonly shipped = shippedSheets();

  constructor(private readonly db: Database) {}

  /** Read anew each time: another server or worker may have changed it. */
  async open(): Promise<Planning> {
    const sheets = [...this.shipped, ...(await ownSheets(this.db))];
    const places = placesById(sheets);
    const finishes = await listFinishes(this.db);
    const finishOf: Planning['finishOf'] = (framed) => resolveFinish(framed, finishes);
    const planOf: Planning['planOf'] = (framed) => {
      const { frame, original } = framed;
      const found = places.get(frame.placeId);
      const { treatment } = finishOf(framed);
      return found
        ? planFrame({ original, place: found.place, settings: frame, treatment, keeping: framed.project.keeping })
        : null;
    };
    return {
      sheets,
      places,
      finishes,
      finishOf,
      planOf,
      measuringOf(framed) {
        const { frame, original } = framed;
        const plan = planOf(framed);
        if (!plan) return null;
        const shownWidths = places.get(frame.placeId)?.place.shownWidths ?? [];
        const marks = marksOnPicture(original.marks, pictureBox(original)).filter(isMust);
        const hash = detailHash(plan, marks, shownWidths);
        return { plan, planHash: planHash(plan), detail: { marks, shownWidths, hash } };
      },
    };
  }
}
