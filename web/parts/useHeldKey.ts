import { useEffect, useRef } from 'react';
import { isTyping } from './isTyping.ts';

/** Says whether a key is held, except while something is typed. */
export function useHeldKey(key: string, onHeld: (held: boolean) => void) {
  const latest = useRef(onHeld);
  latest.current = onHeld;
  useEffect(() => {
    const onKey = (event: globalThis.KeyboardEvent) => {
      if (event.key.toLowerCase() === key && !event.ctrlKey && !event.metaKey && !isTyping(event.target)) {
        latest.current(event.type === 'keydown');
      }
    };
    document.addEventListener('keydown', onKey);
    document.addEventListener('keyup', onKey);
    return () => {
      document.removeEventListener('keydown', onKey);
      document.removeEventListener('keyup', onKey);
    };
  }, [key]);
}
