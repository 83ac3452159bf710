import type { Original, Seen } from '@inkwell/core/model';
import { useStore } from 'zustand';
import { previewUrl } from '../../../api/library/originals.ts';
import { useBenchStore } from '../state/useBench.ts';
import { lookOf } from './lookOf.ts';

const keysOf = ({ ctrlKey, metaKey, shiftKey }: { ctrlKey: boolean; metaKey: boolean; shiftKey: boolean }) => ({
  isCtrl: ctrlKey || metaKey,
  isShift: shiftKey,
});

/** One original in the strip of those on the bench, with a dot that says whether it was looked at, and what is still open. */
export function OriginalTab(props: {
  original: Original;
  isShown: boolean;
  isSelected: boolean;
  /** Undefined while it is not known. */
  seen: Seen | undefined;
  /** Where it stands in the strip: among how many, and in CSS pixels. */
  place: { at: number; of: number; left: number; width: number };
  onPress: (how: { isCtrl: boolean; isShift: boolean }) => void;
}) {
  const { original, isShown, isSelected, seen, place, onPress } = props;
  const set = useStore(useBenchStore(), (bench) => bench.settings.originals[original.id]);
  const { look, words } = lookOf({ ...original, ...set }, seen);
  return (
    <button
      type="button"
      role="tab"
      aria-posinset={place.at}
      aria-setsize={place.of}
      style={{ left: place.left, width: place.width }}
      aria-selected={isShown}
      aria-label={`${original.name}, ${words}${isSelected ? ', selected' : ''}`}
      title={`${original.name}: ${words}. With Ctrl: select it as well; with Shift: all up to it`}
      className="plain-button bench-thumb"
      data-look={look}
      data-selected={isSelected}
      onClick={(event) => onPress(keysOf(event))}
      onKeyDown={(event) => {
        // With Ctrl or Shift a key does not press a button by itself.
        const keys = keysOf(event);
        if ((event.key !== 'Enter' && event.key !== ' ') || !(keys.isCtrl || keys.isShift)) return;
        event.preventDefault();
        onPress(keys);
      }}
    >
      <img alt="" src={previewUrl(original, 160)} />
    </button>
  );
}
