import type { Dimensions } from '@inkwell/core/model';
import { type RefObject, useLayoutEffect, useState } from 'react';

/** The room inside an element, in CSS pixels, kept up to date. */
export function useRoom(holder: RefObject<HTMLElement | null>): Dimensions {
  const [room, setRoom] = useState<Dimensions>({ width: 1, height: 1 });
  useLayoutEffect(() => {
    const element = holder.current;
    if (!element) return;
    const measure = () =>
      setRoom({ width: Math.max(1, element.clientWidth), height: Math.max(1, element.clientHeight) });
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(element);
    return () => observer.disconnect();
  }, [holder]);
  return room;
}
