import { type Grid, piecesOf, wholeDimensions } from '@inkwell/core/geometry';
import type { Group } from '@inkwell/core/model';
import { Slider } from 'antd';
import { type ReactNode, useState } from 'react';

/** Older posts on a made-up profile page, as greys. */
const olderPosts = 6;

/** A whole picture at a width in CSS pixels. */
type Whole = (width: number) => ReactNode;

/** One piece of a picture, cut out of the whole. */
function Tile({ grid, index, width, whole }: { grid: Grid; index: number; width: number; whole: Whole }) {
  const rect = piecesOf(grid)[index];
  if (!rect) return null;
  const scale = width / grid.piece.width;
  return (
    <span className="tile" style={{ width, height: grid.piece.height * scale }}>
      <span style={{ position: 'absolute', left: -rect.left * scale, top: -rect.top * scale }}>
        {whole(wholeDimensions(grid).width * scale)}
      </span>
    </span>
  );
}

/** A block as one post shows it: its tiles with the network's gaps and rounded corners. */
export function BlockView({ grid, group, width, whole }: { grid: Grid; group: Group; width: number; whole: Whole }) {
  const share = group.kind === 'panels' ? 0 : group.gap;
  const tile = width / (grid.columns + (grid.columns - 1) * share);
  return (
    <section
      className="block-view"
      aria-label="The block"
      style={{ gridTemplateColumns: `repeat(${grid.columns}, ${tile}px)`, gap: tile * share, width }}
    >
      {piecesOf(grid).map(({ left, top }, index) => (
        <Tile key={`${left} ${top}`} grid={grid} index={index} width={tile} whole={whole} />
      ))}
    </section>
  );
}

/** A profile page filled with a quilt's tiles, newest first, and older posts after them; also while they are posted. */
export function ProfilePage(props: {
  grid: Grid;
  group: Group;
  /** Of a tile, in CSS pixels. */
  width: number;
  /** Of every piece in reading order. */
  numbers: readonly number[];
  whole: Whole;
}) {
  const { grid, group, width, numbers, whole } = props;
  const count = numbers.length;
  const [posted, setPosted] = useState(count);
  const gap = group.kind === 'panels' ? 0 : group.gap * width;
  // The newest post stands first.
  const shown = numbers
    .map((number, index) => ({ number, index }))
    .filter(({ number }) => number <= posted)
    .sort((a, b) => b.number - a.number);
  return (
    <section className="profile-page" aria-label="The profile page">
      <div className="row profile-head">
        <span className="profile-round" />
        <span className="profile-lines">
          <span />
          <span />
        </span>
      </div>
      <div className="profile-posts" style={{ gridTemplateColumns: `repeat(${grid.columns}, ${width}px)`, gap }}>
        {shown.map(({ index }) => (
          <Tile key={index} grid={grid} index={index} width={width} whole={whole} />
        ))}
        {Array.from({ length: olderPosts }, (_, index) => (
          <span
            key={`older ${index * 1}`}
            className="tile older"
            data-shade={index % 3}
            style={{ width, height: (width * grid.piece.height) / grid.piece.width }}
          />
        ))}
      </div>
      <span className="small quiet" id="posted-so-far">
        {posted} of {count} posted
      </span>
      <Slider
        min={0}
        max={count}
        value={Math.min(posted, count)}
        onChange={setPosted}
        tooltip={{ open: false }}
        ariaLabelledByForHandle="posted-so-far"
      />
    </section>
  );
}
