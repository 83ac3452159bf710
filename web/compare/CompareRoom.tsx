import './compare.css';
import type { Point } from '@inkwell/core/geometry';
import type { Dimensions } from '@inkwell/core/model';
import { useDrag } from '@use-gesture/react';
import { Button, Segmented, Select } from 'antd';
import { type CSSProperties, type KeyboardEvent, type ReactNode, useEffect, useRef, useState } from 'react';
import { useHeldKey } from '../parts/useHeldKey.ts';
import { gestures } from '../stage/gestures.ts';
import { useRoom } from '../stage/useRoom.ts';
import { type Surround, surrounds } from '../theme/palette.ts';
import { Divider } from './Divider.tsx';
import { clampedCentre } from './viewing.ts';

/** How a picture is looked at: always the same for both that are compared. */
export interface View {
  /** The room that a picture has, in CSS pixels. */
  size: Dimensions;
  /** The point of the file in its middle. */
  seen: Point;
  /** CSS pixels to one of the file. */
  scale: number;
  /** How a picture of the whole file lies in the room. */
  layer: CSSProperties & { left: number; top: number };
}

/** One of the pictures that are compared. */
export interface Compared {
  /** What it is called in a corner of the picture. */
  word: string;
  draw: (view: View) => ReactNode;
}

/** Somewhere in the file that one can go to. */
export interface Spot {
  id: string;
  name: string;
  centre: Point;
}

const modes = { flick: 'Flick', divider: 'Divider', side: 'Side by side', difference: 'Difference' } as const;
type Mode = keyof typeof modes;

/**
 * Two pictures of one file in one place: flicked by a key, divided, or side by side, always at the same spot and scale; and
 * where there is one, a picture of their difference.
 */
export function CompareRoom(props: {
  label: string;
  file: Dimensions;
  /** Widths at which the audience sees the file, and what of it. */
  shownWidths: number[];
  spots: Spot[];
  /** The picture that is shown while `key` is held, and on the left of the divider. */
  before: Compared & { key: string };
  after: Compared;
  difference?: Compared;
  surround: Surround;
  /** Changes when the room should go somewhere, e.g. to the worst spot. */
  goTo?: Point | null;
  tools?: ReactNode;
  /** Lies over the picture, whichever is shown. */
  overlay?: (view: View) => ReactNode;
  note?: ReactNode;
}) {
  const { label, file, shownWidths, spots, before, after, difference, surround, goTo, tools, overlay, note } = props;
  const holder = useRef<HTMLDivElement>(null);
  const room = useRoom(holder);
  const [mode, setMode] = useState<Mode>('flick');
  const [zoom, setZoom] = useState('1');
  const [centre, setCentre] = useState<Point>({ x: file.width / 2, y: file.height / 2 });
  const [divider, setDivider] = useState(0.5);
  const [isBefore, setBefore] = useState(false);
  useEffect(() => {
    if (goTo) setCentre(goTo);
  }, [goTo]);

  const scale = scaleOf(zoom, file.width);
  const size = { width: mode === 'side' ? (room.width - 2) / 2 : room.width, height: room.height };
  const seen = clampedCentre(centre, size, scale, file);
  const layer = {
    left: size.width / 2 - seen.x * scale,
    top: size.height / 2 - seen.y * scale,
    width: file.width * scale,
    height: file.height * scale,
    ...(scale * devicePixelRatio > 1.01 ? { imageRendering: 'pixelated' as const } : {}),
  };
  const view: View = { size, seen, scale, layer };
  useHeldKey(before.key, setBefore);

  const pan = (by: Point) => setCentre(clampedCentre({ x: seen.x + by.x, y: seen.y + by.y }, size, scale, file));
  const onKeyDown = (event: KeyboardEvent) => {
    const step = (event.shiftKey ? 100 : 20) / scale;
    const by = { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, -step], ArrowDown: [0, step] }[event.key];
    if (!by) return;
    event.preventDefault();
    event.stopPropagation();
    pan({ x: by[0] ?? 0, y: by[1] ?? 0 });
  };
  const grip = useDrag(({ movement: [x, y], memo }) => {
    const start: Point = memo ?? seen;
    setCentre(clampedCentre({ x: start.x - x / scale, y: start.y - y / scale }, size, scale, file));
    return start;
  }, gestures.drag);
  const word = before.word.toLowerCase();
  const main = mode === 'difference' && difference ? difference : after;
  return (
    <section className="compare" aria-label={label} style={{ background: surrounds[surround] }}>
      <div className="compare-tools">
        <Segmented<Mode>
          size="small"
          aria-label="Compare by"
          value={mode}
          onChange={setMode}
          options={(Object.keys(modes) as Mode[])
            .filter((value) => value !== 'difference' || difference)
            .map((value) => ({ value, label: modes[value] }))}
        />
        <Segmented<string>
          size="small"
          aria-label="Scale"
          value={zoom}
          onChange={setZoom}
          options={[
            { value: '1', label: '100 %' },
            { value: '2', label: '200 %' },
            ...shownWidths.slice(0, 3).map((shown) => ({
              value: `w${shown}`,
              label: `${shown} px`,
              title: `As the audience sees it, ${shown} px wide`,
            })),
          ]}
        />
        {spots.length > 0 && (
          <Select<string>
            size="small"
            aria-label="Look at"
            placeholder="Look at …"
            style={{ width: 140 }}
            value={null}
            onChange={(id) => {
              const spot = spots.find((one) => one.id === id);
              if (spot) setCentre(spot.centre);
            }}
            options={spots.map(({ id, name }) => ({ value: id, label: name }))}
          />
        )}
        {mode === 'flick' && (
          <Button
            size="small"
            title={`Hold to see the ${word} picture (key ${before.key.toUpperCase()})`}
            onPointerDown={() => setBefore(true)}
            onPointerUp={() => setBefore(false)}
            onPointerLeave={() => setBefore(false)}
          >
            Hold for {word} ({before.key.toUpperCase()})
          </Button>
        )}
        {tools}
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
          <div className="compare-view held" style={{ width: size.width }} {...grip()}>
            {before.draw(view)}
            {overlay?.(view)}
            <span className="compare-word">{before.word}</span>
          </div>
        )}
        <div
          className="compare-view held"
          style={{ width: size.width }}
          data-showing={mode === 'flick' && isBefore ? word : main.word.toLowerCase()}
          {...grip()}
        >
          {main.draw(view)}
          {mode === 'flick' && <div style={{ visibility: isBefore ? 'visible' : 'hidden' }}>{before.draw(view)}</div>}
          {mode === 'divider' && (
            <div className="compare-clip" style={{ clipPath: `inset(0 ${(1 - divider) * 100}% 0 0)` }}>
              {before.draw(view)}
            </div>
          )}
          {overlay?.(view)}
          <span className="compare-word">{mode === 'flick' && isBefore ? before.word : main.word}</span>
          {mode === 'divider' && <span className="compare-word left">{before.word}</span>}
        </div>
        {mode === 'divider' && (
          <Divider
            at={divider}
            width={size.width}
            between={`${word} and ${after.word.toLowerCase()}`}
            onMove={setDivider}
          />
        )}
      </section>
      {note}
    </section>
  );
}

/** CSS pixels to one of the file. */
function scaleOf(zoom: string, width: number): number {
  return zoom.startsWith('w') ? Number(zoom.slice(1)) / width : Number(zoom) / devicePixelRatio;
}
