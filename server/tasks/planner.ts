import { type ResolvedFinish, resolveFinish } from '@inkwell/core/finishing';
import { marksOnPicture, pictureBox } from '@inkwell/core/geometry';
import {
  basisOf,
  type Finish,
  frameBounds,
  isMust,
  type KeepMark,
  type Place,
  type PlaceOfNetwork,
  type Planned,
  placeProblem,
  placesById,
  type SpecSheet,
} from '@inkwell/core/model';
import { detailHash, plainPlan, planFrame, planHash, type RenderPlan } from '@inkwell/core/planning';
import { shippedSheets } from '../standins/shippedSheets.ts';
import type { Database, Queryable } from '../store/database.ts';
import { listFinishes } from '../store/library/finishes.ts';
import { ownSheets } from '../store/library/ownPlaces.ts';
import type { FramedPicture } from '../store/projects/frames.ts';

/** What frames are planned from as it is now: all sheets of the spec book, their places by id, and the finishes. */
export interface Planning {
  sheets: SpecSheet[];
  places: Map<string, PlaceOfNetwork>;
  /** Finishes that people made. */
  finishes: Finish[];
  /** How a frame is finished. */
  finishOf(framed: FramedPicture): ResolvedFinish;
  /** The plan of a frame as it is set; null where its place is no longer in the book, or beyond all bounds. */
  planOf(framed: FramedPicture): RenderPlan | null;
  /** What that plan is called. */
  plannedOf(framed: FramedPicture): Planned | null;
  /** What is measured of a frame as it is set; null where its place is no longer in the book, or beyond all bounds. */
  measuringOf(framed: FramedPicture): Measuring | null;
}

/** What of a frame takes pixels to know. */
export interface Measuring {
  plan: RenderPlan;
  planned: Planned;
  detail: {
    /** Must be recognised at all of `shownWidths`. */
    marks: KeepMark[];
    shownWidths: number[];
    hash: string;
  };
}

/** Whether a frame is within what can be planned at all: one that is not was kept before there were bounds. */
const isPlannable = (place: Place, { frame }: FramedPicture) =>
  placeProblem(place) === null && (frame.grid?.columns ?? 1) * (frame.grid?.rows ?? 1) <= frameBounds.pieces;

/** Plans frames from the sheets and finishes that ship with the program, and from those that people made. */
export class Planner {
  private readonly shipped = shippedSheets();

  constructor(private readonly db: Database) {}

  /** Read anew each time: another server or worker may have changed it. @param db a transaction, to see what it has changed */
  async open(db: Queryable = this.db): Promise<Planning> {
    const sheets = [...this.shipped, ...(await ownSheets(db))];
    const places = placesById(sheets);
    const finishes = await listFinishes(db);
    const finishOf: Planning['finishOf'] = (framed) => resolveFinish(framed, finishes);
    const planOf: Planning['planOf'] = (framed) => {
      const { frame, original } = framed;
      const found = places.get(frame.placeId);
      const { treatment } = finishOf(framed);
      return found && isPlannable(found.place, framed)
        ? planFrame({ original, place: found.place, settings: frame, treatment, keeping: framed.project.keeping })
        : null;
    };
    const plannedAs = (framed: FramedPicture, plan: RenderPlan): Planned => {
      const place = places.get(framed.frame.placeId)?.place ?? {};
      const basis = basisOf({ ...framed, finish: finishOf(framed).finish, place });
      return { basis, planHash: planHash(plan), plainHash: planHash(plainPlan(plan)) };
    };
    return {
      sheets,
      places,
      finishes,
      finishOf,
      planOf,
      plannedOf(framed) {
        const plan = planOf(framed);
        return plan && plannedAs(framed, plan);
      },
      measuringOf(framed) {
        const { frame, original } = framed;
        const plan = planOf(framed);
        if (!plan) return null;
        const shownWidths = places.get(frame.placeId)?.place.shownWidths ?? [];
        const marks = marksOnPicture(original.marks, pictureBox(original)).filter(isMust);
        const hash = detailHash(plan, marks, shownWidths);
        return { plan, planned: plannedAs(framed, plan), detail: { marks, shownWidths, hash } };
      },
    };
  }
}
