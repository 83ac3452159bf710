import { isStraightened, straightened } from '@inkwell/core/geometry';
import type {
  Aim,
  Analysis,
  Frame,
  FrameSettings,
  Lettering,
  OriginalSettings,
  ProposalKind,
} from '@inkwell/core/model';
import { openProposals, openTilt } from '@inkwell/core/proposing';
import { decided } from '../stage/marks.ts';

/** Originals that something is done to, as they are set now. */
export interface Selected {
  ids: ReadonlySet<string>;
  settingsOf: (originalId: string) => OriginalSettings | undefined;
  analysisOf: (originalId: string) => Analysis | null;
  frames: readonly Frame[];
  frameSettings: (frameId: string) => FrameSettings | undefined;
}

type OriginalChanges = Map<string, Partial<OriginalSettings>>;
type FrameChanges = Map<string, Partial<FrameSettings>>;

/** Keeps everything of a kind that was seen and nobody has decided on: it must be in every frame. */
export function keepSeen({ ids, settingsOf, analysisOf }: Selected, kind: ProposalKind): OriginalChanges {
  const changes: OriginalChanges = new Map();
  for (const id of ids) {
    const settings = settingsOf(id);
    const seen = settings ? openProposals(settings, analysisOf(id)).filter((one) => one.kind === kind) : [];
    if (settings && seen.length > 0) changes.set(id, decided(settings, seen, 'keep'));
  }
  return changes;
}

/** How many things of each kind were seen that nobody has decided on. */
export function seenKinds({ ids, settingsOf, analysisOf }: Selected): Map<ProposalKind, number> {
  const counts = new Map<ProposalKind, number>();
  for (const id of ids) {
    const settings = settingsOf(id);
    if (!settings) continue;
    for (const { kind } of openProposals(settings, analysisOf(id))) counts.set(kind, (counts.get(kind) ?? 0) + 1);
  }
  return counts;
}

const framesOf = ({ ids, frames }: Selected) => frames.filter(({ originalId }) => ids.has(originalId));

/** Straightens the frames of what leans as it is proposed, as far as nobody has turned them. */
export function straightenSeen(selected: Selected): FrameChanges {
  const changes: FrameChanges = new Map();
  for (const { id, originalId } of framesOf(selected)) {
    const [original, settings] = [selected.settingsOf(originalId), selected.frameSettings(id)];
    const tilt = original ? openTilt(original, selected.analysisOf(originalId)) : null;
    if (tilt === null || !settings || isStraightened(settings.window)) continue;
    changes.set(id, { composed: settings.composed, window: straightened(settings.window, tilt) });
  }
  return changes;
}

/** What the bytes of their files are spent on; null for what their places are for. */
export function aimAt(selected: Selected, aim: Aim | null): FrameChanges {
  return new Map(
    framesOf(selected).flatMap(({ id }): [string, Partial<FrameSettings>][] => {
      const settings = selected.frameSettings(id);
      return settings ? [[id, { weighing: { ...settings.weighing, aim } }]] : [];
    }),
  );
}

/**
 * An item laid over the selected originals as well, or over them no more.
 *
 * @param all the originals of the project
 * @returns the lettering then; null where it would be laid over none: then it is taken out where it is written
 */
export function laidOver(
  lettering: Lettering,
  itemId: string,
  selected: ReadonlySet<string>,
  all: readonly string[],
): Lettering | null {
  const item = lettering.find(({ id }) => id === itemId);
  if (!item) return null;
  const over = new Set(item.originalIds ?? all);
  const isOverAll = [...selected].every((id) => over.has(id));
  const ids = all.filter((id) => (selected.has(id) ? !isOverAll : over.has(id)));
  if (ids.length === 0) return null;
  const originalIds = ids.length === all.length ? null : ids;
  return lettering.map((one) => (one.id === itemId ? { ...one, originalIds } : one));
}
