import { useEffect } from 'react';
import { measureFirst } from '../../../api/projects/frames.ts';
import type { FrameState } from './benchFrame.ts';

/** Has the frame that somebody looks at measured before all others. */
export function useMeasuredFirst(frameId: string, state: FrameState | null): void {
  const unmeasured = state && state.weight === null && state.failure === null ? state.savedHash : null;
  useEffect(() => {
    // It is measured in its turn where this does not arrive.
    if (unmeasured) measureFirst(frameId, unmeasured).catch(() => undefined);
  }, [frameId, unmeasured]);
}
