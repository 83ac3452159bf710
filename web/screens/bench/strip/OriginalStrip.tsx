import './OriginalStrip.css';
import type { Original, Seen } from '@inkwell/core/model';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useCallback, useEffect, useRef } from 'react';
import { seenOf } from '../../../api/library/seen.ts';
import { useFinger } from '../../../theme/useMedia.ts';
import { OriginalTab } from './OriginalTab.tsx';

/** Of the pictures in the strip, and of what lies round each, in CSS pixels. */
const sides = {
  mouse: { height: 30, most: 62, least: 28, round: 8 },
  finger: { height: 40, most: 62, least: 44, round: 8 },
};
const gap = 6;
/** So many that are not in sight are there as well, for whoever goes on by keyboard. */
const more = 12;

/** The originals of a project in a line. Of hundreds only those are drawn that are in sight, or nearly. */
export function OriginalStrip(props: {
  originals: readonly Original[];
  shownId: string;
  selected: ReadonlySet<string>;
  seen: readonly Seen[] | undefined;
  onPress: (originalId: string, how: { isCtrl: boolean; isShift: boolean }) => void;
}) {
  const { originals, shownId, selected, seen, onPress } = props;
  const holder = useRef<HTMLDivElement>(null);
  const { height, most, least, round } = useFinger() ? sides.finger : sides.mouse;
  const widthOf = ({ width, height: high }: Original) =>
    Math.max(least, Math.min(most, Math.round((height * width) / high)) + round);
  const strip = useVirtualizer({
    horizontal: true,
    count: originals.length,
    getScrollElement: () => holder.current,
    getItemKey: (index) => originals[index]?.id ?? index,
    estimateSize: (index) => (originals[index] ? widthOf(originals[index]) : least),
    gap,
    overscan: more,
    // More than what is in sight is drawn: it need not be there before the browser goes on.
    useFlushSync: false,
  });
  // What is drawn stays as it is while the strip is scrolled.
  const latest = useRef(onPress);
  useEffect(() => {
    latest.current = onPress;
  }, [onPress]);
  const press = useCallback<typeof onPress>((id, how) => latest.current(id, how), []);
  // What only passes by is not asked for: its pictures would come after they are gone, and hold up those that stay.
  const asked = useRef(new Set<string>());
  const shownAt = originals.findIndex(({ id }) => id === shownId);
  useEffect(() => {
    if (shownAt >= 0) strip.scrollToIndex(shownAt);
  }, [strip, shownAt]);
  return (
    <div ref={holder} className="bench-originals" role="tablist" aria-label="Originals">
      <div role="presentation" style={{ width: strip.getTotalSize(), height: height + round }}>
        {strip.getVirtualItems().map(({ index, start, size }) => {
          const one = originals[index];
          if (!one) return null;
          if (!strip.isScrolling) asked.current.add(one.id);
          return (
            <OriginalTab
              key={one.id}
              original={one}
              isShown={one.id === shownId}
              isSelected={selected.has(one.id)}
              seen={seenOf(seen, one.id)}
              at={index + 1}
              of={originals.length}
              left={start}
              width={size}
              hasPicture={asked.current.has(one.id)}
              onPress={press}
            />
          );
        })}
      </div>
    </div>
  );
}
