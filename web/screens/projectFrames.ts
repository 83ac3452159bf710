import { frameFindings } from '@inkwell/core/checking';
import { resolveFinish } from '@inkwell/core/finishing';
import { settledPlaceOf } from '@inkwell/core/framing';
import type { Finding, Frame, OpenProject, Original, PieceOfWhole, PlaceOfNetwork, Weight } from '@inkwell/core/model';
import { letteringFor, planWithWords } from '@inkwell/core/planning';
import { asComposed, openTilt } from '@inkwell/core/proposing';
import { piecesInOrder } from '@inkwell/core/splitting';
import { useMemo } from 'react';
import { useFinishes } from '../api/library/finishes.ts';
import { seenOf, useSeen } from '../api/library/seen.ts';
import { usePlaces } from '../api/library/specBook.ts';
import { useMeasured } from '../api/projects/projects.ts';
import { useFontBook } from '../fonts/useFontBook.ts';

/** A frame as the server has it, with what was measured of it. */
export interface ProjectFrame {
  frame: Frame;
  original: Original;
  at: PlaceOfNetwork;
  /** Null while it is not known. */
  planHash: string | null;
  weight: Weight | null;
  /** Why it could not be measured, in words; null where it was, or still is. */
  failure: string | null;
  /** In the order of uploading; null where it is one picture. */
  pieces: (PieceOfWhole | null)[];
  findings: Finding[];
}

/** All frames of a project, in its order; and why nothing is known of their files, where that is so. */
export function useProjectFrames(project: OpenProject): { frames: ProjectFrame[]; error: unknown; again: () => void } {
  const places = usePlaces(project);
  const { data: measured, error, refetch } = useMeasured(project.id);
  const { data: known } = useFinishes();
  const { data: looked } = useSeen(project.id);
  const book = useFontBook(project.lettering);
  const frames = useMemo(
    () =>
      project.frames.flatMap((frame) => {
        const original = project.originals.find((one) => one.id === frame.originalId);
        const said = places.get(frame.placeId);
        if (!original || !said) return [];
        const {
          planHash = null,
          weight = null,
          failure = null,
          detail = null,
          legibility = null,
          figures = null,
        } = measured?.find((one) => one.frameId === frame.id) ?? {};
        const { treatment } = resolveFinish({ frame, original, project }, known?.finishes ?? []);
        const seen = seenOf(looked, original.id)?.analysis ?? null;
        const composed = asComposed(original, seen, project.composing);
        const at = settledPlaceOf(said, composed, frame);
        const pieces = piecesInOrder(at.place, frame);
        const tilt = openTilt(original, seen);
        const { plan, lettered, wordsRoom } = planWithWords({
          original: composed,
          place: at.place,
          settings: frame,
          treatment,
          keeping: project.keeping,
          lettering: letteringFor(project, book, frame, seen),
        });
        const toCheck = {
          original: composed,
          tilt,
          place: at.place,
          settings: frame,
          treatment,
          weight,
          detail,
          legibility,
          figures,
          wordsRoom,
          lettered,
        };
        const findings = frameFindings(toCheck, plan.window);
        return [{ frame, original, at, planHash, weight, failure, pieces, findings }];
      }),
    [project, places, measured, known, looked, book],
  );
  return { frames, error, again: () => void refetch() };
}
