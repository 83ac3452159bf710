import './ItemHandles.css';
import type { Rect } from '@inkwell/core/geometry';
import { itemsOnPicture, type Snapped, snapItem, standOf, withinMargins } from '@inkwell/core/lettering';
import { type Hand, type LetteredItem, type Stand, withHand } from '@inkwell/core/model';
import { useDrag } from '@use-gesture/react';
import { type KeyboardEvent, type ReactNode, useState } from 'react';
import { snapDistance } from '../../../stage/ChosenOutline.tsx';
import { gestures } from '../../../stage/gestures.ts';
import type { BenchFrame, FrameState } from '../frames/benchFrame.ts';
import { useBenchStore } from '../state/useBench.ts';
import { HandBar } from './HandBar.tsx';

/** What is shown of where an item has snapped to. */
type Shown = Pick<Snapped, 'lines' | 'distances'>;
const nothing: Shown = { lines: [], distances: [] };

/** How much a press of + or − changes an item. */
const step = 1.03;

/** Where a frame lies that is not shown upright, and how a movement on the screen is one within it. */
interface Placed {
  transform: string;
  toFrame: (movement: [number, number]) => [number, number];
}

/** The items of a frame as they can be taken hold of. */
export function ItemHandles(props: {
  one: BenchFrame;
  state: FrameState;
  /** Of the frame, in CSS pixels. */
  width: number;
  /** Where it does not lie upright, as on the original; then what can be set by hand is set elsewhere. */
  placed?: Placed;
  onChoose?: (itemId: string) => void;
  /** What lies under the handles. */
  children?: ReactNode;
}) {
  const { one, state, width, placed, onChoose, children } = props;
  const store = useBenchStore();
  const [chosenId, setChosenId] = useState<string | null>(null);
  const [snapped, setSnapped] = useState<Shown>(nothing);
  const { lettering, output, settings } = state;
  const { project } = one.finishing;
  const scale = width / output.width;
  const items = lettering?.items ?? [];
  const { hands } = settings;
  const set = (itemId: string, change: Partial<Hand>) =>
    store.set('frames', one.frame.id, { hands: withHand(hands, itemId, change) });
  const nameOf = (id: string) => project.lettering.find((item) => item.id === id)?.name ?? 'Item';
  const chosen = itemsOnPicture(project.lettering, one.original.id).find(({ id }) => id === chosenId);
  return (
    <>
      <div
        className="item-handles"
        data-placed={placed !== undefined}
        style={{ width, height: output.height * scale, ...(placed ? { transform: placed.transform } : {}) }}
      >
        {children}
        {items.map((item) => (
          <ItemHandle
            key={`${item.itemId} ${item.piece.left} ${item.piece.top}`}
            item={item}
            name={nameOf(item.itemId)}
            scale={scale}
            isChosen={item.itemId === chosenId}
            others={items.filter((other) => other !== item).map(({ box }) => box)}
            toFrame={placed?.toFrame}
            onChoose={() => {
              setChosenId(item.itemId);
              onChoose?.(item.itemId);
            }}
            onLetGo={() => setChosenId(null)}
            onMove={(stand) => store.moveItem(one.frame.id, withHand(hands, item.itemId, { stand }))}
            onRest={() => store.commitMove()}
            onRestSoon={() => store.commitMoveSoon()}
            onSnap={setSnapped}
          />
        ))}
        {snapped.lines.map(({ axis, at }) => (
          <span
            key={`${axis} ${at}`}
            className="item-line"
            data-axis={axis}
            style={axis === 'x' ? { left: at * scale } : { top: at * scale }}
          />
        ))}
        {snapped.distances.map(({ axis, from, to, across }) => {
          const [start, length] = [from * scale, (to - from) * scale];
          const at = across * scale;
          return (
            <span
              key={`${axis} ${from}`}
              className="item-distance"
              data-axis={axis}
              style={axis === 'x' ? { left: start, width: length, top: at } : { top: start, height: length, left: at }}
            >
              <span className="small">{Math.round(to - from)} px</span>
            </span>
          );
        })}
      </div>
      {chosen && !placed && (
        <HandBar
          key={chosen.id}
          item={chosen}
          hand={hands[chosen.id]}
          original={one.original}
          onHand={(change) => set(chosen.id, change)}
          onClose={() => setChosenId(null)}
        />
      )}
    </>
  );
}

function ItemHandle(props: {
  item: LetteredItem;
  name: string;
  /** CSS pixels to one of the file. */
  scale: number;
  isChosen: boolean;
  others: readonly Rect[];
  toFrame: Placed['toFrame'] | undefined;
  onChoose: () => void;
  onLetGo: () => void;
  onMove: (stand: Stand) => void;
  onRest: () => void;
  onRestSoon: () => void;
  onSnap: (snapped: Shown) => void;
}) {
  const { item, name, scale, isChosen, others, toFrame, onChoose, onLetGo, onMove, onRest, onRestSoon, onSnap } = props;
  const { piece } = item;
  const { left, top, width, height } = item.box;
  const dragging = toFrame ? { ...gestures.drag, transform: toFrame } : gestures.drag;
  const movedBy = (stand: Stand, x: number, y: number): Stand => ({
    ...stand,
    x: stand.x + x / piece.width,
    y: stand.y + y / piece.height,
  });
  const drag = useDrag(({ movement: [mx, my], first, last, tap, altKey, memo }) => {
    const start: { stand: Stand; box: Rect } = memo ?? { stand: standOf(item), box: item.box };
    if (first) onChoose();
    if (tap || (first && mx === 0 && my === 0)) return start;
    const [x, y] = [mx / scale, my / scale];
    const box = { ...start.box, left: start.box.left + x, top: start.box.top + y };
    const snapped = altKey ? null : snapItem(box, piece, withinMargins(piece), others, snapDistance / scale);
    onMove(movedBy(start.stand, x + (snapped?.by.x ?? 0), y + (snapped?.by.y ?? 0)));
    onSnap(last || !snapped ? nothing : snapped);
    if (last) onRest();
    return start;
  }, dragging);
  const resize = useDrag(({ movement: [mx, my], first, last, event, memo }) => {
    event.stopPropagation();
    const start: { stand: Stand; box: Rect } = memo ?? { stand: standOf(item), box: item.box };
    if (first && mx === 0 && my === 0) return start;
    // From the middle, by the direction in which the corner lies.
    const reach = Math.hypot(start.box.width, start.box.height) / 2;
    const along = (mx * start.box.width + my * start.box.height) / (2 * reach * scale);
    onMove({ ...start.stand, size: start.stand.size * Math.max(0.1, 1 + along / reach) });
    if (last) onRest();
    return start;
  }, dragging);
  const onKeyDown = (event: KeyboardEvent) => {
    const by = event.shiftKey ? 10 : 1;
    const stand = standOf(item);
    const next: Record<string, Stand> = {
      ArrowLeft: movedBy(stand, -by, 0),
      ArrowRight: movedBy(stand, by, 0),
      ArrowUp: movedBy(stand, 0, -by),
      ArrowDown: movedBy(stand, 0, by),
      '+': { ...stand, size: stand.size * step },
      '=': { ...stand, size: stand.size * step },
      '-': { ...stand, size: stand.size / step },
    };
    const moved = next[event.key];
    // The first Esc lets go of the item, the next goes back to the wall.
    if (event.key === 'Escape' && isChosen) {
      event.preventDefault();
      onLetGo();
      return;
    }
    if (!moved) return;
    event.preventDefault();
    onMove(moved);
    onRestSoon();
  };
  return (
    <button
      {...drag()}
      type="button"
      className="plain-button item-handle"
      data-chosen={isChosen}
      aria-label={`${name}, ${item.isMoved ? 'moved by hand' : 'laid out'}`}
      aria-pressed={isChosen}
      title={`${name}: drag it, or move it with the arrow keys; + and − make it larger and smaller`}
      style={{
        left: (left + width / 2) * scale,
        top: (top + height / 2) * scale,
        width: width * scale,
        height: height * scale,
      }}
      onClick={onChoose}
      onKeyDown={onKeyDown}
    >
      {isChosen && <span {...resize()} className="item-corner" data-testid="item-corner" />}
    </button>
  );
}
