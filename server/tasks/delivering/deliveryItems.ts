import { frameFindings } from '@inkwell/core/checking';
import type { ResolvedFinish } from '@inkwell/core/finishing';
import {
  isMust,
  limitFor,
  type MarkToCompose,
  type Place,
  type PlaceOfNetwork,
  type PlaceThen,
  type SpecSheet,
} from '@inkwell/core/model';
import { fileNames, nameable } from '@inkwell/core/naming';
import { type LetteredFrame, type RenderPlan, watchedMarks } from '@inkwell/core/planning';
import { postingWords } from '@inkwell/core/posting';
import { asComposed } from '@inkwell/core/proposing';
import { piecesInOrder } from '@inkwell/core/splitting';
import type { FramedPicture } from '../../store/projects/frames.ts';
import type { DeliveryItem, MarkThen } from '../../store/schema/index.ts';
import type { Planning } from '../plans/planner.ts';

/** A frame that is to be delivered, with all that follows for it. */
export interface WantedFrame extends FramedPicture {
  at: PlaceOfNetwork;
  sheet: SpecSheet;
  plan: RenderPlan;
  hash: string;
  finish: ResolvedFinish;
  lettered: LetteredFrame | null;
}

/** Frames as they would be delivered now; what cannot be planned is left out. */
export const wantedFrames = (
  { atOf, bookFor, measuringOf, finishOf, letteredOf }: Planning,
  frames: readonly FramedPicture[],
): WantedFrame[] =>
  frames.flatMap((framed): WantedFrame[] => {
    const { sheets } = bookFor(framed.project);
    const at = atOf(framed);
    const sheet = sheets.find(({ slug }) => slug === at?.network.slug);
    const measuring = measuringOf(framed);
    if (!at || !sheet || !measuring) return [];
    const { plan, planned } = measuring;
    const found = { plan, hash: planned.planHash, finish: finishOf(framed), lettered: letteredOf(framed) };
    return [{ ...framed, at, sheet, ...found }];
  });

/** One item for every file of some frames, in posting order. */
export function deliveryItems(wanted: readonly WantedFrame[], pattern: string): DeliveryItem[] {
  const files = wanted.flatMap((one) => {
    const perFrame = { blocked: blockersOf(one), placeThen: placeThenOf(one), marks: marksThen(one) };
    return piecesInOrder(one.at.place, one.frame).map((piece) => ({ ...one, ...perFrame, piece }));
  });
  const names = fileNames(
    pattern,
    files.map(({ frame, original, at, piece }) => nameable(original, at, frame, piece)),
  );
  return files.map(({ frame, original, project, at, plan, finish, piece, blocked, placeThen, marks }, index) => ({
    fileName: names[index] ?? '',
    plan,
    original: original.name,
    network: at.network.name,
    place: at.place.name,
    placeThen,
    limit: limitFor(at.place, frame.format),
    posting: postingWords(original, project, frame),
    marks,
    ...(plan.finish || plan.border
      ? { finish: { name: finish.finish.name, version: finish.finish.version, blend: finish.treatment.blend } }
      : {}),
    ...(frame.uploadWidth !== null && !piece ? { uploadWidth: frame.uploadWidth } : {}),
    ...(piece ? { piece } : {}),
    blocked,
  }));
}

function placeThenOf({ at, sheet: { slug, checkedOn, own } }: WantedFrame): PlaceThen {
  return { id: at.id, sheet: { slug, checkedOn, ...(own ? { version: own.version } : {}) }, spec: specOf(at.place) };
}

/** A place as the frame met it, without what else its sheet says of it. */
const specOf = (place: Place): Place => {
  if (!('said' in place)) return place;
  const { said: _, ...spec } = place;
  return spec;
};

/** What matters in a frame, where it lies in its file: what a person has marked, and what the program is sure to have seen. */
const marksThen = ({ original, seen, project, plan }: WantedFrame): MarkThen[] =>
  watchedMarks(asComposed(original, seen, project.composing), plan)
    .filter(({ mark }: { mark: MarkToCompose }) => (mark.proposed ? mark.proposed === 'sure' : true))
    .map(({ mark, rect }) => ({ name: mark.name, isMust: isMust(mark), rect }));

/** What forbids to deliver a frame, in words, as far as that is known before it is rendered. */
function blockersOf({
  frame,
  original,
  project,
  seen,
  at,
  plan,
  finish: { treatment },
  lettered,
}: WantedFrame): string[] {
  const composed = asComposed(original, seen, project.composing);
  const toCheck = { original: composed, place: at.place, settings: frame, treatment, weight: null, lettered };
  const findings = frameFindings(toCheck, plan.window);
  return findings.filter((one) => one.level === 'blocker').map((one) => one.text);
}
