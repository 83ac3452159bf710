import { FramePicture } from '../../../parts/pictures/FramePicture.tsx';
import { type BenchFrame, type FrameState, pictureOf } from '../frames/benchFrame.ts';
import { FrameOverlay } from '../stage/FrameOverlay.tsx';

/** A frame as the audience sees it: at a width at which it is shown, through its mask, with what covers it. */
export function AudiencePicture({ one, state, width }: { one: BenchFrame; state: FrameState; width: number }) {
  const { frame, at } = one;
  return (
    <span className="audience-picture">
      <FramePicture {...pictureOf(one, state)} width={width} masked />
      <FrameOverlay
        id={`${frame.id}-${width}`}
        place={at.place}
        settings={state.settings}
        output={state.output}
        lines="none"
        named={false}
      />
    </span>
  );
}
