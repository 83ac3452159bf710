import './CloseUp.css';
import type { Grid, Snap } from '@inkwell/core/geometry';
import type { Group, Measured, Place } from '@inkwell/core/model';
import { Button, Segmented } from 'antd';
import { type CSSProperties, type ReactNode, useRef, useState } from 'react';
import { FramePicture } from '../../../parts/pictures/FramePicture.tsx';
import { useRoom } from '../../../stage/useRoom.ts';
import { type Surround, surrounds } from '../../../theme/palette.ts';
import { type BenchFrame, pictureOf, useFrameState } from '../frames/benchFrame.ts';
import { ItemHandles } from '../lettering/ItemHandles.tsx';
import { LeftOutHere } from '../lettering/LeftOutHere.tsx';
import { FrameOverlay, type LineKind, lineKinds } from '../stage/FrameOverlay.tsx';
import { MovingFrame } from '../stage/MovingFrame.tsx';
import { AudiencePicture } from './AudiencePicture.tsx';
import { PiecesOverlay } from './PiecesOverlay.tsx';
import { SwipeView } from './SwipeView.tsx';
import { BlockView, ProfilePage } from './TilesView.tsx';

/** What stays free round the picture, in CSS pixels: above it stand the tools, and beside it less where there is little. */
const margin = 54;
const narrowMargin = 14;
const narrowRoom = 600;
const lineWords: Record<LineKind, string> = {
  none: 'No lines',
  thirds: 'Thirds',
  centre: 'Centre',
  diagonals: 'Diagonals',
};

/** One frame, large: it stands still and the picture moves under it. Beside it, the frame at the audience's sizes. */
export function CloseUp(props: {
  one: BenchFrame;
  measured: readonly Measured[] | undefined;
  surround: Surround;
  onBack: () => void;
}) {
  const { one, surround } = props;
  const { at } = one;
  const holder = useRef<HTMLDivElement>(null);
  const room = useRoom(holder);
  const state = useFrameState(one, props.measured);
  const [lines, setLines] = useState<LineKind>(one.frame.grid ? 'none' : 'thirds');
  const [snaps, setSnaps] = useState<readonly Snap[]>([]);
  if (!state) return null;
  const { output, grid, numbers } = state;
  const width = Math.max(
    40,
    Math.min(
      room.width - 2 * (room.width < narrowRoom ? narrowMargin : margin),
      ((room.height - 2 * margin) * output.width) / output.height,
    ),
  );
  const picture = pictureOf(one, state);
  return (
    <section
      className="close-up bench-view"
      style={{ '--sizes-width': `${sizesWidth(at.place, grid)}px` } as CSSProperties}
      aria-label={`Close-up of ${at.network.name} ${at.place.name}`}
    >
      <div ref={holder} className="close-up-stage" style={{ background: surrounds[surround] }}>
        <MovingFrame one={one} state={state} width={width} onSnap={setSnaps}>
          <FramePicture {...picture} width={Math.round(width)} />
          <FrameOverlay
            id="close"
            place={at.place}
            settings={state.settings}
            output={output}
            lines={lines}
            snaps={snaps}
            named
          />
          {grid && <PiecesOverlay grid={grid} numbers={numbers} />}
        </MovingFrame>
        <ItemHandles one={one} state={state} width={Math.round(width)} />
        <LeftOutHere one={one} state={state} />
        <div className="close-up-tools">
          <Button size="small" title="Back to the wall (Esc)" onClick={props.onBack}>
            Back
          </Button>
          <Segmented<LineKind>
            size="small"
            aria-label="Composition lines"
            value={lines}
            onChange={setLines}
            options={lineKinds.map((kind) => ({ value: kind, label: lineWords[kind] }))}
          />
        </div>
      </div>
      <aside className="close-up-sizes" aria-label="As the audience sees it">
        <h2 className="minor-title">{at.place.group?.kind === 'panels' ? 'Swipe it' : 'As the audience sees it'}</h2>
        {at.place.shownWidths.length === 0 && (
          <p className="quiet">The spec book does not say at which size this place is shown.</p>
        )}
        {grid && at.place.group && (
          <Shown
            grid={grid}
            group={at.place.group}
            widths={at.place.shownWidths}
            numbers={numbers}
            whole={(size) => <FramePicture {...picture} width={size} masked />}
          />
        )}
        {(grid ? [] : at.place.shownWidths).map((shown) => (
          <figure key={shown} className="close-up-size">
            <figcaption className="quiet small">
              {shown} px wide{devicePixelRatio === 1 ? '' : `, ${Math.round(shown * devicePixelRatio)} on this screen`}
            </figcaption>
            <div style={{ overflow: 'auto' }}>
              <AudiencePicture one={one} state={state} width={shown} />
            </div>
          </figure>
        ))}
      </aside>
    </section>
  );
}

/** How a picture that is cut is met: swiped, as one block, or filling a profile page. */
function Shown(props: {
  grid: Grid;
  group: Group;
  widths: readonly number[];
  numbers: readonly number[];
  whole: (width: number) => ReactNode;
}) {
  const { grid, group, widths, numbers, whole } = props;
  return widths.map((width) => {
    if (group.kind === 'block') return <BlockView key={width} grid={grid} group={group} width={width} whole={whole} />;
    if (group.kind === 'quilt') {
      return (
        <ProfilePage
          key={`${width} ${numbers.length}`}
          grid={grid}
          group={group}
          width={width}
          numbers={numbers}
          whole={whole}
        />
      );
    }
    return (
      <SwipeView key={width} grid={grid} width={width}>
        {whole(width * grid.columns)}
      </SwipeView>
    );
  });
}

/** The sizes stand side by side with the close-up as long as that leaves it the larger part; wider ones are scrolled. */
function sizesWidth({ shownWidths, group }: Place, grid: Grid | null): number {
  // A profile page shows its tiles side by side; a strip is shown a panel at a time.
  const across = group?.kind === 'quilt' && grid ? grid.columns + (grid.columns - 1) * group.gap : 1;
  return Math.min(590, Math.max(280, ...shownWidths.map((width) => Math.ceil(width * across))) + 40);
}
