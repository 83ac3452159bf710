import { hasClosing, type Point, type Rect } from '@inkwell/core/geometry';
import type { Treatment } from '@inkwell/core/model';
import { planFrame, planOpening } from '@inkwell/core/planning';
import { Button, Segmented, Select } from 'antd';
import { type KeyboardEvent, type PointerEvent, useEffect, useMemo, useRef, useState } from 'react';
import { proofUrl } from '../../../api/frames.ts';
import { useRoom } from '../../../stage/useRoom.ts';
import { type Surround, surrounds } from '../../../theme/palette.ts';
import type { BenchFrame, FrameState } from '../benchFrame.ts';
import { useLivePart } from './useLivePart.ts';
import { clampedCentre, markCentre, visiblePart } from './viewing.ts';

const modes = { flick: 'Flick', divider: 'Divider', side: 'Side by side' } as const;
type Mode = keyof typeof modes;

/** The plain and the finished picture in one place: flicked by a key, divided, or side by side, always at the same spot. */
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
  const holder = useRef<HTMLDivElement>(null);
  const room = useRoom(holder);
  const [mode, setMode] = useState<Mode>('flick');
  const [zoom, setZoom] = useState('1');
  const [centre, setCentre] = useState<Point>({ x: output.width / 2, y: output.height / 2 });
  const [divider, setDivider] = useState(0.5);
  const [plain, setPlain] = useState(false);
  const [proved, setProved] = useState<string | null>(null);
  const held = useRef<{ from: Point; centre: Point } | null>(null);

  const scale = scaleOf(zoom, output.width);
  const view = { width: mode === 'side' ? (room.width - 2) / 2 : room.width, height: room.height };
  const seen = clampedCentre(centre, view, scale, output);

  const carried = useMemo(() => {
    const plan = planFrame({
      original,
      place: at.place,
      settings: state.settings,
      treatment: draft ?? state.finish.treatment,
      keeping: one.finishing.project.keeping,
    });
    const { margins, pixels } = planOpening(plan);
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
  const part = visiblePart(seen, view, scale, carried);
  const canvas = useRef<HTMLCanvasElement>(null);
  const { shown: live, failed } = useLivePart(canvas, {
    frameId: one.frame.id,
    plainHash: state.plainHash,
    finish: isLive ? carried.finish : null,
    picture: pixels,
    rect: part,
  });

  useEffect(() => {
    const onKey = (event: globalThis.KeyboardEvent) => {
      const typing = event.target instanceof HTMLElement && event.target.closest('input, textarea, [role="combobox"]');
      if (event.key.toLowerCase() === 'p' && !event.ctrlKey && !event.metaKey && !typing) {
        setPlain(event.type === 'keydown');
      }
    };
    document.addEventListener('keydown', onKey);
    document.addEventListener('keyup', onKey);
    return () => {
      document.removeEventListener('keydown', onKey);
      document.removeEventListener('keyup', onKey);
    };
  }, []);

  const layer = {
    left: view.width / 2 - seen.x * scale,
    top: view.height / 2 - seen.y * scale,
    width: output.width * scale,
    height: output.height * scale,
    ...(scale * devicePixelRatio > 1.01 ? { imageRendering: 'pixelated' as const } : {}),
  };
  const width = output.width;
  const plainPicture = (
    <img
      alt="Plain"
      className="compare-layer"
      style={layer}
      src={proofUrl(one.frame.id, state.plainHash, width, 'plain')}
    />
  );
  const finishedPicture = (
    <>
      {shown.hash && (
        <img
          alt="Finished"
          className="compare-layer"
          style={layer}
          src={proofUrl(one.frame.id, shown.hash, width)}
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
        style={{ ...(live ? placed(live, carried.margins, layer, scale) : {}), display: live ? 'block' : 'none' }}
      />
    </>
  );

  const pan = (by: Point) => setCentre(clampedCentre({ x: seen.x + by.x, y: seen.y + by.y }, view, scale, output));
  const onKeyDown = (event: KeyboardEvent) => {
    const step = (event.shiftKey ? 100 : 20) / scale;
    const by = { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, -step], ArrowDown: [0, step] }[event.key];
    if (!by) return;
    event.preventDefault();
    event.stopPropagation();
    pan({ x: by[0] ?? 0, y: by[1] ?? 0 });
  };
  const grip = {
    onPointerDown: (event: PointerEvent) => {
      event.currentTarget.setPointerCapture(event.pointerId);
      held.current = { from: { x: event.clientX, y: event.clientY }, centre: seen };
    },
    onPointerMove: (event: PointerEvent) => {
      if (!held.current) return;
      const { from, centre } = held.current;
      const moved = { x: centre.x + (from.x - event.clientX) / scale, y: centre.y + (from.y - event.clientY) / scale };
      setCentre(clampedCentre(moved, view, scale, output));
    },
    onPointerUp: () => {
      held.current = null;
    },
    onPointerCancel: () => {
      held.current = null;
    },
  };
  const marks = original.marks.filter(({ role }) => role === 'keep');
  return (
    <section className="compare" aria-label="Plain and finished" style={{ background: surrounds[surround] }}>
      <div className="compare-tools">
        <Segmented<Mode>
          size="small"
          aria-label="Compare by"
          value={mode}
          onChange={setMode}
          options={(Object.keys(modes) as Mode[]).map((value) => ({ value, label: modes[value] }))}
        />
        <Segmented<string>
          size="small"
          aria-label="Scale"
          value={zoom}
          onChange={setZoom}
          options={[
            { value: '1', label: '100 %' },
            { value: '2', label: '200 %' },
            ...at.place.shownWidths.slice(0, 3).map((shown) => ({
              value: `w${shown * (state.grid?.columns ?? 1)}`,
              label: `${shown} px`,
              title: `As the audience sees it, ${shown} px wide`,
            })),
          ]}
        />
        {marks.length > 0 && (
          <Select<string>
            size="small"
            aria-label="Look at"
            placeholder="Look at …"
            style={{ width: 140 }}
            value={null}
            onChange={(id) => {
              const mark = marks.find((one) => one.id === id);
              if (mark) setCentre(markCentre(mark, state));
            }}
            options={marks.map(({ id, name }) => ({ value: id, label: name }))}
          />
        )}
        {mode === 'flick' && (
          <Button
            size="small"
            title="Hold to see the plain picture (key P)"
            onPointerDown={() => setPlain(true)}
            onPointerUp={() => setPlain(false)}
            onPointerLeave={() => setPlain(false)}
          >
            Hold for plain (P)
          </Button>
        )}
      </div>
      <section
        ref={holder}
        className="compare-room"
        aria-label="Picture; arrow keys move it"
        // biome-ignore lint/a11y/noNoninteractiveTabindex: arrows move what is looked at, as in any scrolled region.
        tabIndex={0}
        onKeyDown={onKeyDown}
      >
        {mode === 'side' && (
          <div className="compare-view" style={{ width: view.width }} {...grip}>
            {plainPicture}
            <span className="compare-word">Plain</span>
          </div>
        )}
        <div
          className="compare-view"
          style={{ width: view.width }}
          data-showing={plain ? 'plain' : 'finished'}
          {...grip}
        >
          {finishedPicture}
          {mode === 'flick' && <div style={{ visibility: plain ? 'visible' : 'hidden' }}>{plainPicture}</div>}
          {mode === 'divider' && (
            <div className="compare-clip" style={{ clipPath: `inset(0 ${(1 - divider) * 100}% 0 0)` }}>
              {plainPicture}
            </div>
          )}
          <span className="compare-word">{mode === 'flick' && plain ? 'Plain' : 'Finished'}</span>
          {mode === 'divider' && <span className="compare-word left">Plain</span>}
        </div>
        {mode === 'divider' && <Divider at={divider} width={view.width} onMove={setDivider} />}
        {(live || failed) && (
          <output className="compare-live small">{failed ? 'Not live: it is shown when it is saved' : 'live'}</output>
        )}
      </section>
      {hasClosing(at.place, state.settings) && (
        <p className="compare-note small">
          The closing panel follows when a slider is let go; the strip follows at once.
        </p>
      )}
    </section>
  );
}

/** CSS pixels to one of the file. */
function scaleOf(zoom: string, width: number): number {
  return zoom.startsWith('w') ? Number(zoom.slice(1)) / width : Number(zoom) / devicePixelRatio;
}

/** Where a part of the picture lies on the screen. */
const placed = (
  part: Rect,
  margins: { left: number; top: number },
  layer: { left: number; top: number },
  scale: number,
) => ({
  left: layer.left + (part.left + margins.left) * scale,
  top: layer.top + (part.top + margins.top) * scale,
  width: part.width * scale,
  height: part.height * scale,
  ...(scale * devicePixelRatio > 1.01 ? { imageRendering: 'pixelated' as const } : {}),
});

/** A line that is dragged, or moved by arrow keys, between plain on its left and finished on its right. */
function Divider({ at, width, onMove }: { at: number; width: number; onMove: (at: number) => void }) {
  const move = (to: number) => onMove(Math.min(1, Math.max(0, to)));
  return (
    <div
      className="compare-divider"
      role="slider"
      tabIndex={0}
      aria-label="Divider between plain and finished"
      aria-valuemin={0}
      aria-valuemax={100}
      aria-valuenow={Math.round(at * 100)}
      style={{ left: at * width }}
      onPointerDown={(event) => event.currentTarget.setPointerCapture(event.pointerId)}
      onPointerMove={(event) => {
        const room = event.currentTarget.parentElement?.getBoundingClientRect();
        if (room && event.buttons === 1) move((event.clientX - room.left) / width);
      }}
      onKeyDown={(event) => {
        const by = event.key === 'ArrowLeft' ? -0.02 : event.key === 'ArrowRight' ? 0.02 : 0;
        if (by === 0) return;
        event.preventDefault();
        event.stopPropagation();
        move(at + by);
      }}
    />
  );
}
