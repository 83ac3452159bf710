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
import { useMeasured } from '../api/projects/measured.ts';
import { useFontBook } from '../fonts/useFontBook.ts';
import { remembering } from '../parts/many/remembering.ts';
import { useUnhurried } from '../parts/many/useUnhurried.ts';

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

const remembered = remembering<Frame, ProjectFrame>();

/**
 * All frames of a project, in its order; and why nothing is known of their files, where that is so. Of a project with thousands they come a little
 * later.
 */
export function useProjectFrames(project: OpenProject): {
  frames: readonly ProjectFrame[];
  /** Whether these are all. */
  isDone: boolean;
  error: unknown;
  again: () => void;
} {
  const places = usePlaces(project);
  const { byFrame, isPending, error, again } = useMeasured(project);
  const { data: known } = useFinishes();
  const { data: looked } = useSeen(project);
  const book = useFontBook(project.lettering);
  const work = useMemo(() => {
    const pictures = new Map(
      project.originals.map((original) => {
        const seen = seenOf(looked, original.id)?.analysis ?? null;
        return [original.id, { original, composed: asComposed(original, seen, project.composing), seen }];
      }),
    );
    return (frame: Frame): ProjectFrame | null => {
      const picture = pictures.get(frame.originalId);
      const said = places.get(frame.placeId);
      if (!picture || !said) return null;
      const { original, composed, seen } = picture;
      const measured = byFrame.get(frame.id);
      const { finish, treatment } = resolveFinish({ frame, original, project }, known?.finishes ?? []);
      const { composing, keeping, lettering } = project;
      const from = [original, seen, composing, keeping, lettering, finish, treatment.blend, said, book, measured];
      return remembered(frame, from, () => {
        const { planHash = null, weight = null, failure = null } = measured ?? {};
        const { detail = null, legibility = null, figures = null } = measured ?? {};
        const at = settledPlaceOf(said, composed, frame);
        const { plan, lettered, wordsRoom } = planWithWords({
          original: composed,
          place: at.place,
          settings: frame,
          treatment,
          keeping,
          lettering: letteringFor(project, book, frame, seen),
        });
        const toCheck = {
          original: composed,
          tilt: openTilt(original, seen),
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
        return { frame, original, at, planHash, weight, failure, pieces: piecesInOrder(at.place, frame), findings };
      });
    };
  }, [project, places, byFrame, known, looked, book]);
  const { results, isDone } = useUnhurried(project.frames, work);
  const frames = useMemo(() => results.filter((one) => one !== null), [results]);
  return { frames, isDone: isDone && !isPending, error, again };
}
