import type { Original, Seen } from '@inkwell/core/model';
import { memo } from 'react';
import { useStore } from 'zustand';
import { previewUrl } from '../../../api/library/originals.ts';
import { useBenchStore } from '../state/useBench.ts';
import { lookOf } from './lookOf.ts';

const keysOf = ({ ctrlKey, metaKey, shiftKey }: { ctrlKey: boolean; metaKey: boolean; shiftKey: boolean }) => ({
  isCtrl: ctrlKey || metaKey,
  isShift: shiftKey,
});

/** One original in the strip of those on the bench, with a dot that says whether it was looked at, and what is still open. */
export const OriginalTab = memo(function OriginalTab(props: {
  original: Original;
  isShown: boolean;
  isSelected: boolean;
  /** Undefined while it is not known. */
  seen: Seen | undefined;
  /** Where it stands in the strip, from 1, and among how many. */
  at: number;
  of: number;
  /** The same in CSS pixels. */
  left: number;
  width: number;
  /** Whether its picture is there, or may be asked for. */
  hasPicture: boolean;
  onPress: (originalId: string, how: { isCtrl: boolean; isShift: boolean }) => void;
}) {
  const { original, isShown, isSelected, seen, at, of, left, width, hasPicture, onPress } = props;
  const set = useStore(useBenchStore(), (bench) => bench.settings.originals[original.id]);
  const { look, words } = lookOf({ ...original, ...set }, seen);
  return (
    <button
      type="button"
      role="tab"
      aria-posinset={at}
      aria-setsize={of}
      style={{ left, width }}
      aria-selected={isShown}
      aria-label={`${original.name}, ${words}${isSelected ? ', selected' : ''}`}
      title={`${original.name}: ${words}. With Ctrl: select it as well; with Shift: all up to it`}
      className="plain-button bench-thumb"
      data-look={look}
      data-selected={isSelected}
      onClick={(event) => onPress(original.id, keysOf(event))}
      onKeyDown={(event) => {
        // With Ctrl or Shift a key does not press a button by itself.
        const keys = keysOf(event);
        if ((event.key !== 'Enter' && event.key !== ' ') || !(keys.isCtrl || keys.isShift)) return;
        event.preventDefault();
        onPress(original.id, keys);
      }}
    >
      {hasPicture && <img alt="" decoding="async" src={previewUrl(original, 160)} />}
    </button>
  );
});
