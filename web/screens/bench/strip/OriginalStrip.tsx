import './OriginalStrip.css';
import type { Original, Seen } from '@inkwell/core/model';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useMemo, useRef } from 'react';
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
  seen: readonly Seen[] | undefined;
  onShow: (originalId: string) => void;
}) {
  const { originals, shownId, seen, onShow } = props;
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
  });
  const shownAt = originals.findIndex(({ id }) => id === shownId);
  useEffect(() => {
    if (shownAt >= 0) strip.scrollToIndex(shownAt);
  }, [strip, shownAt]);
  const seenById = useMemo(() => new Map(seen?.map((one) => [one.originalId, one])), [seen]);
  return (
    <div ref={holder} className="bench-originals" role="tablist" aria-label="Originals">
      <div role="presentation" style={{ width: strip.getTotalSize(), height: height + round }}>
        {strip.getVirtualItems().map(({ index, start, size }) => {
          const one = originals[index];
          if (!one) return null;
          return (
            <OriginalTab
              key={one.id}
              original={one}
              isShown={one.id === shownId}
              seen={seenById.get(one.id)}
              place={{ at: index + 1, of: originals.length, left: start, width: size }}
              onShow={() => onShow(one.id)}
            />
          );
        })}
      </div>
    </div>
  );
}
