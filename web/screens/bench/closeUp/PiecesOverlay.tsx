import { type Grid, piecesOf, seamsOf, wholeDimensions } from '@inkwell/core/geometry';
import { palette } from '../../../theme/palette.ts';

/** The seams of a frame that is cut, and on each piece its number in the order of uploading. */
export function PiecesOverlay({ grid, numbers }: { grid: Grid; numbers: readonly number[] }) {
  const { width, height } = wholeDimensions(grid);
  const size = Math.min(grid.piece.width, grid.piece.height) * 0.16;
  return (
    <svg className="pieces-over" viewBox={`0 0 ${width} ${height}`} preserveAspectRatio="none" aria-hidden="true">
      {seamsOf(grid).map(({ axis, start, width: band }) => {
        const [x, y] = axis === 'x' ? [start, 0] : [0, start];
        const [across, down] = axis === 'x' ? [band, height] : [width, band];
        return (
          <g key={`${axis} ${start}`}>
            <rect x={x} y={y} width={across} height={down} fill={palette.outlineEdge} opacity="0.55" />
            <line
              className="close-up-line edge"
              x1={x}
              y1={y}
              x2={axis === 'x' ? x : width}
              y2={axis === 'x' ? height : y}
            />
            <line
              className="close-up-line"
              x1={x}
              y1={y}
              x2={axis === 'x' ? x : width}
              y2={axis === 'x' ? height : y}
            />
          </g>
        );
      })}
      {piecesOf(grid).map(({ left, top }, index) => (
        <text
          key={`${left} ${top}`}
          x={left + size * 0.35}
          y={top + size}
          fontSize={size}
          fontWeight="600"
          fill={palette.outline}
          stroke={palette.outlineEdge}
          strokeWidth={size / 7}
          paintOrder="stroke"
        >
          {numbers[index]}
        </text>
      ))}
    </svg>
  );
}
