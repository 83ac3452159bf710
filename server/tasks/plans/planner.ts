import { type ResolvedFinish, resolveFinish } from '@inkwell/core/finishing';
import { settledPlaceOf } from '@inkwell/core/framing';
import { fileDimensions, marksOnPicture, pictureBox, takesSeveral } from '@inkwell/core/geometry';
import type { FontBook } from '@inkwell/core/lettering';
import {
  basisOf,
  type Finish,
  type Frame,
  frameBounds,
  isMust,
  type KeepMark,
  type Original,
  type Pins,
  type Place,
  type PlaceOfNetwork,
  type Planned,
  placeProblem,
} from '@inkwell/core/model';
import {
  detailHash,
  type LetteredFrame,
  legibilityHash,
  letteringFor,
  type PlannedFrame,
  planHashes,
  planWithWords,
  type RenderPlan,
} from '@inkwell/core/planning';
import { asComposed } from '@inkwell/core/proposing';
import { LRUCache } from 'lru-cache';
import type { Fonts } from '../../fonts/fonts.ts';
import { blobToFile } from '../../store/blobs/blobs.ts';
import type { Database, Queryable } from '../../store/database.ts';
import { listFinishes } from '../../store/library/finishes.ts';
import { libraryVersion } from '../../store/library/libraryVersion.ts';
import { listOwnFonts } from '../../store/library/ownFonts.ts';
import type { FramedPicture } from '../../store/projects/frames.ts';
import { type Book, type SpecBook, SpecBooks } from '../book/specBook.ts';

/** What frames are planned from: the spec book, the finishes that people made, and all fonts. */
interface Library {
  readonly specBook: SpecBook;
  readonly finishes: readonly Finish[];
  /** All fonts that words can be set in. */
  readonly book: FontBook;
}

/** The library as it is now, and what follows from it for frames. */
export interface Planning extends Omit<Library, 'specBook'>, Book {
  /** The spec book as a project has it. */
  bookFor(project: { pins: Pins }): Book;
  /** The place of a frame, as its project has it and the frame meets it; undefined where it is not in the book. */
  atOf(framed: FramedPicture): PlaceOfNetwork | undefined;
  /** How a frame is finished. */
  finishOf(framed: FramedPicture): ResolvedFinish;
  /** The plan of a frame as it might be set; null where its place is no longer in the book, or beyond all bounds. */
  planOf(framed: FramedPicture): RenderPlan | null;
  /** What a frame's words come to; null where it has none, or cannot be planned. */
  letteredOf(framed: FramedPicture): LetteredFrame | null;
  /** What is measured of a frame as it is stored; null where its place is no longer in the book, or beyond all bounds. */
  measuringOf(framed: FramedPicture): Measuring | null;
}

/** What of a frame takes pixels to know. */
export interface Measuring {
  plan: RenderPlan;
  planned: Planned;
  /** How well its marks can be recognised where it is shown small; null where none has to be. */
  detail: { marks: KeepMark[]; shownWidths: number[]; hash: string } | null;
  /** How well its words can be read at the same widths; null where it has none. */
  legibility: { shownWidths: number[]; hash: string } | null;
}

/** Whether a frame is within what can be planned at all: one that is not was kept before there were bounds. */
const isPlannable = (place: Place, frame: Frame, original: Original) => {
  const { grid } = frame;
  if (placeProblem(place) !== null || (grid?.columns ?? 1) * (grid?.rows ?? 1) > frameBounds.pieces) return false;
  const { width, height } = fileDimensions(place, original, frame);
  return width * height <= frameBounds.pixels;
};

/** Plans of so many characters are kept: a few thousand each, and as many again for every word that is laid over. */
const mostKept = 60_000_000;
/** A plan without its words. */
const plainLength = 3000;

const lengthOf = ({ plan }: Measuring): number =>
  (plan.lettering?.layers ?? []).reduce(
    (sum, layer) => sum + (layer.kind === 'outline' ? layer.path.length : 0),
    plainLength,
  );

/**
 * Plans by frame and by the versions of all that they follow from. To compose a frame takes a millisecond, and lists ask for many. Planners
 * share them: frames of two workspaces are two.
 */
export const keptPlans = () => new LRUCache<string, Measuring>({ maxSize: mostKept, sizeCalculation: lengthOf });

/** Plans frames from the sheets and finishes that ship with the program, and from those that people made. */
export class Planner {
  private readonly specBooks = new SpecBooks();

  /** The library as it was read last. */
  private library: (Library & { version: number }) | null = null;

  constructor(
    private readonly db: Database,
    private readonly fonts: Fonts,
    private readonly kept = keptPlans(),
  ) {}

  /** Sheets and finishes as they are now: another server or worker may have changed them since they were read last. */
  private async libraryOf(db: Queryable): Promise<Library & { version: number }> {
    const version = await libraryVersion(db);
    if (this.library?.version === version) return this.library;
    // What a transaction has changed may be taken back, and its version given to another change.
    const isLasting = db === this.db;
    const specBook = await this.specBooks.read(db, isLasting);
    const fetch = (sha256: string, path: string) => blobToFile(db, sha256, path);
    const book = await this.fonts.bookWith(await listOwnFonts(db), fetch);
    const library = { version, book, specBook, finishes: await listFinishes(db) };
    if (isLasting) this.library = library;
    return library;
  }

  /** Everything as it is now. @param db a transaction, to see what it has changed */
  async open(db: Queryable = this.db): Promise<Planning> {
    const { version, specBook, finishes, book } = await this.libraryOf(db);
    const { sheets, places } = specBook;
    const bookFor: Planning['bookFor'] = ({ pins }) => specBook.withPins(pins);
    const atOf: Planning['atOf'] = ({ frame, original, project, seen }) => {
      const at = bookFor(project).places.get(frame.placeId);
      if (!at || !takesSeveral(at.place)) return at;
      return settledPlaceOf(at, asComposed(original, seen, project.composing), frame);
    };
    const finishOf: Planning['finishOf'] = (framed) => resolveFinish(framed, finishes);
    const plannedOf = (framed: FramedPicture): PlannedFrame | null => {
      const { frame, original, project, seen } = framed;
      const place = atOf(framed)?.place;
      if (!place || !isPlannable(place, frame, original)) return null;
      const { treatment } = finishOf(framed);
      const composed = asComposed(original, seen, project.composing);
      const lettering = letteringFor(project, book, frame, seen);
      return planWithWords({
        original: composed,
        place,
        settings: frame,
        treatment,
        keeping: project.keeping,
        lettering,
      });
    };
    const planOf: Planning['planOf'] = (framed) => plannedOf(framed)?.plan ?? null;
    // What a transaction sees may be taken back, and its versions given to something else.
    const isLasting = db === this.db;
    return {
      sheets,
      places,
      bookFor,
      atOf,
      finishes,
      book,
      finishOf,
      planOf,
      letteredOf: (framed) => (framed.project.lettering.length === 0 ? null : (plannedOf(framed)?.lettered ?? null)),
      measuringOf: (framed) => {
        const place = atOf(framed)?.place ?? {};
        const basis = basisOf({ ...framed, finish: finishOf(framed).finish, place });
        // A font that words have waited for makes another plan of the same frame.
        const key = `${framed.frame.id} ${basis} ${version}`;
        const known = this.kept.get(key);
        if (known) return known;
        const plan = planOf(framed);
        const measuring = plan && measuringAs(framed, plan, basis, place);
        if (measuring && isLasting) this.kept.set(key, measuring);
        return measuring;
      },
    };
  }
}

function measuringAs(
  { original }: FramedPicture,
  plan: RenderPlan,
  basis: string,
  { shownWidths = [] }: Pick<Partial<Place>, 'shownWidths'>,
): Measuring {
  const marks = marksOnPicture(original.marks, pictureBox(original)).filter(isMust);
  const planned = { basis, ...planHashes(plan) };
  const hasWords = plan.lettering?.items.some(({ letters }) => letters !== null) ?? false;
  return {
    plan,
    planned,
    detail: marks.length > 0 ? { marks, shownWidths, hash: detailHash(plan, marks, shownWidths) } : null,
    legibility: hasWords ? { shownWidths, hash: legibilityHash(planned.planHash, shownWidths) } : null,
  };
}
