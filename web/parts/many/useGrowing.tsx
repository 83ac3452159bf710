import { type ReactNode, useCallback, useState } from 'react';

/** So many more are drawn each time. */
const step = 60;
/** The end counts as in sight a little before it is. */
const margin = '400px';

/** The first of many, and more of them as soon as one has scrolled to their end. @returns what is drawn, and what stands after it */
export function useGrowing<Item>(items: readonly Item[]): { drawn: readonly Item[]; end: ReactNode } {
  const [count, setCount] = useState(step);
  const watched = useCallback((end: HTMLElement | null) => {
    if (!end) return undefined;
    const observer = new IntersectionObserver(
      (seen) => {
        if (seen.some(({ isIntersecting }) => isIntersecting)) setCount((before) => before + step);
      },
      { rootMargin: margin },
    );
    observer.observe(end);
    return () => observer.disconnect();
  }, []);
  return {
    drawn: items.slice(0, count),
    // Another one each time: an observer only tells when something comes into sight.
    end: count < items.length ? <span key={count} ref={watched} aria-hidden="true" /> : null,
  };
}
