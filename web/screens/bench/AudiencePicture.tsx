import { FramePicture } from '../../parts/FramePicture.tsx';
import type { BenchFrame, FrameState } from './benchFrame.ts';
import { FrameOverlay } from './FrameOverlay.tsx';

/** A frame as the audience sees it: at a width at which it is shown, through its mask, with what covers it. */
export function AudiencePicture({ one, state, width }: { one: BenchFrame; state: FrameState; width: number }) {
  const { frame, original, at } = one;
  const { output } = state;
  return (
    <span className="audience-picture">
      <FramePicture
        frameId={frame.id}
        original={original}
        place={at.place}
        output={output}
        window={state.window}
        settings={state.settings}
        planHash={state.savedHash}
        width={width}
        masked
      />
      <FrameOverlay id={`${frame.id}-${width}`} place={at.place} output={output} lines="none" named={false} />
    </span>
  );
}
