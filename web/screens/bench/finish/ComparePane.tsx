import { hasClosing, type Rect } from '@inkwell/core/geometry';
import type { Treatment } from '@inkwell/core/model';
import { planContentArea, planFrame } from '@inkwell/core/planning';
import { useEffect, useMemo, useRef, useState } from 'react';
import { proofUrl } from '../../../api/projects/frames.ts';
import { CompareRoom, type View } from '../../../compare/CompareRoom.tsx';
import { visiblePart } from '../../../compare/viewing.ts';
import { LetterLayers } from '../../../parts/pictures/LetterLayers.tsx';
import type { Surround } from '../../../theme/palette.ts';
import type { BenchFrame, FrameState } from '../frames/benchFrame.ts';
import { markSpots } from '../frames/markSpots.ts';
import { useLivePart } from './useLivePart.ts';

/** The plain and the finished picture in one place. */
export function ComparePane(props: {
  one: BenchFrame;
  state: FrameState;
  /** A treatment on its way, while a hand moves a slider. */
  draft: Treatment | null;
  surround: Surround;
}) {
  const { one, state, draft, surround } = props;
  const { original, at } = one;
  const { output } = state;
  return (
    <CompareRoom
      label="Plain and finished"
      file={output}
      shownWidths={at.place.shownWidths.map((shown) => shown * (state.grid?.columns ?? 1))}
      spots={markSpots(original.marks, state)}
      before={{
        word: 'Plain',
        key: 'p',
        draw: ({ layer }) =>
          state.plainHash && (
            <img
              alt="Plain"
              className="compare-layer"
              style={layer}
              src={proofUrl(one.frame.id, state.plainHash, output.width, 'plain')}
            />
          ),
      }}
      after={{
        word: 'Finished',
        draw: (view) => <FinishedLayer one={one} state={state} draft={draft} view={view} />,
      }}
      surround={surround}
      note={
        hasClosing(at.place, state.settings) && (
          <p className="compare-note small">
            The closing panel follows when a slider is let go; the strip follows at once.
          </p>
        )
      }
    />
  );
}

/** The last proof of a frame, and over it, while it is out of date, what is seen of it finished here. */
function FinishedLayer(props: { one: BenchFrame; state: FrameState; draft: Treatment | null; view: View }) {
  const { one, state, draft, view } = props;
  const { original, at } = one;
  const [proved, setProved] = useState<string | null>(null);
  const carried = useMemo(() => {
    const plan = planFrame({
      original,
      place: at.place,
      settings: state.settings,
      treatment: draft ?? state.finish.treatment,
      keeping: one.finishing.project.keeping,
    });
    const { margins, pixels } = planContentArea(plan);
    return { finish: plan.finish, margins, pixels };
  }, [original, at.place, state.settings, draft, state.finish.treatment, one.finishing.project.keeping]);
  // The last proof stays until the next has come: nothing flickers. Over it, the part that is finished here; but not where
  // a border or a window was changed, and the two would not lie on each other.
  const { margins, pixels } = carried;
  const lies = JSON.stringify([state.window, margins, pixels]);
  const [shown, setShown] = useState({ hash: state.savedHash, lies });
  useEffect(() => {
    if (state.savedHash !== null) setShown({ hash: state.savedHash, lies });
  }, [state.savedHash, lies]);
  const [lain, setLain] = useState(lies);
  const isLive = lain === lies && (draft !== null || state.savedHash === null || proved !== state.savedHash);
  const canvas = useRef<HTMLCanvasElement>(null);
  const { shown: live, failed } = useLivePart(canvas, {
    frameId: one.frame.id,
    plainHash: state.plainHash,
    finish: isLive ? carried.finish : null,
    picture: pixels,
    rect: visiblePart(view.seen, view.size, view.scale, carried),
  });
  return (
    <>
      {shown.hash && (
        <img
          alt="Finished"
          className="compare-layer"
          style={view.layer}
          src={proofUrl(one.frame.id, shown.hash, state.output.width)}
          onLoad={() => {
            setProved(shown.hash);
            setLain(shown.lies);
          }}
        />
      )}
      <canvas
        ref={canvas}
        className="compare-layer"
        data-live={live !== null}
        style={{ ...(live ? placed(live, carried, view) : {}), display: live ? 'block' : 'none' }}
      />
      {live && state.lettering && (
        <div className="compare-layer" style={view.layer}>
          <LetterLayers lettering={state.lettering} output={state.output} />
        </div>
      )}
      {(live || failed) && (
        <output className="compare-live small">{failed ? 'Not live: shown when it is saved' : 'live'}</output>
      )}
    </>
  );
}

/** Where a part of the picture lies on the screen. */
const placed = (
  part: Rect,
  { margins }: Pick<ReturnType<typeof planContentArea>, 'margins'>,
  { layer, scale }: View,
) => ({
  left: layer.left + (part.left + margins.left) * scale,
  top: layer.top + (part.top + margins.top) * scale,
  width: part.width * scale,
  height: part.height * scale,
  ...(scale * devicePixelRatio > 1.01 ? { imageRendering: 'pixelated' as const } : {}),
});
