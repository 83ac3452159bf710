import type { Original, Seen } from '@inkwell/core/model';
import { openBody, openProposals, openTilt, seenWords } from '@inkwell/core/proposing';
import { useStore } from 'zustand';
import { previewUrl } from '../../../api/library/originals.ts';
import { useBenchStore } from '../state/useBench.ts';

/** One original in the strip of those on the bench, with a dot that says whether it was looked at, and what is still open. */
export function OriginalTab(props: {
  original: Original;
  isShown: boolean;
  /** Undefined while it is not known. */
  seen: Seen | undefined;
  /** Where it stands in the strip: among how many, and in CSS pixels. */
  place: { at: number; of: number; left: number; width: number };
  onShow: () => void;
}) {
  const { original, isShown, seen, place, onShow } = props;
  const set = useStore(useBenchStore(), (bench) => bench.settings.originals[original.id]);
  const { state, words } = lookOf({ ...original, ...set }, seen);
  return (
    <button
      type="button"
      role="tab"
      aria-posinset={place.at}
      aria-setsize={place.of}
      style={{ left: place.left, width: place.width }}
      aria-selected={isShown}
      aria-label={`${original.name}, ${words}`}
      title={`${original.name}: ${words}`}
      className="plain-button bench-thumb"
      data-look={state}
      onClick={onShow}
    >
      <img alt="" src={previewUrl(original, 160)} />
    </button>
  );
}

/** How far looking at an original is, in a word, and in words for people. */
function lookOf(original: Original, seen: Seen | undefined): { state: string; words: string } {
  const analysis = seen?.analysis ?? null;
  if (!analysis) {
    return seen?.failure ? { state: 'doubt', words: 'not looked at' } : { state: 'waiting', words: 'being looked at' };
  }
  const proposals = openProposals(original, analysis);
  const doubts = [
    ...(proposals.some(({ sureness }) => sureness === 'likely') ? ['not sure'] : []),
    ...(openTilt(original, analysis) === null ? [] : ['leans']),
    ...(openBody(original, analysis) === null ? [] : ['has an empty margin']),
  ];
  const found = proposals.length > 0 ? `seen: ${seenWords(proposals)}` : 'looked at';
  return { state: doubts.length > 0 ? 'doubt' : 'seen', words: [found, ...doubts].join('; ') };
}
