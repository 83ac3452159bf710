import './PlaceOutline.css';
import type { Area, Place } from '@inkwell/core/model';

/** Of a place whose height is free, the height that is drawn, as a share of its width. */
const freeShare = 0.62;
/** A longer side than this, in pixels of the place, is drawn as long as this. */
const largestDrawn = 2800;

function AreaShape({ area, className }: { area: Area; className: string }) {
  if (area.shape === 'circle') {
    const radius = area.width / 2;
    return <circle className={className} cx={area.left + radius} cy={area.top + radius} r={radius} />;
  }
  return <rect className={className} x={area.left} y={area.top} width={area.width} height={area.height} />;
}

/** The true shape of a place, small: its mask, the areas that are covered, and the part that is always shown. */
export function PlaceOutline(props: {
  place: Place;
  /** Screen pixels per place pixel; less for a place that would be too large. */
  scale: number;
}) {
  const { place } = props;
  const { width } = place;
  const height = typeof place.height === 'number' ? place.height : width * freeShare;
  const scale = Math.min(props.scale, (props.scale * largestDrawn) / Math.max(width, height));
  const columns = place.group?.kind === 'panels' ? 3 : (place.group?.columns ?? 1);
  const rows = place.group?.kind === 'block' ? place.group.rows : place.group?.kind === 'quilt' ? 2 : 1;
  const gap = place.group && place.group.kind !== 'panels' ? place.group.gap * width : 0;
  const radius = place.shape === 'circle' ? width / 2 : place.shape === 'rounded' ? width * 0.04 : 0;
  const whole = { width: columns * width + (columns - 1) * gap, height: rows * height + (rows - 1) * gap };
  const shrink = 1 / Math.max(1, columns * 0.62);
  const edge = 1.5 / (scale * shrink);
  const pieces = Array.from({ length: columns * rows }, (_, index) => ({
    x: (index % columns) * (width + gap),
    y: Math.floor(index / columns) * (height + gap),
  }));
  return (
    <svg
      className="place-outline"
      width={whole.width * scale * shrink}
      height={whole.height * scale * shrink}
      viewBox={`${-edge} ${-edge} ${whole.width + 2 * edge} ${whole.height + 2 * edge}`}
      aria-hidden
    >
      {pieces.map(({ x, y }) => (
        <g key={`${x} ${y}`} transform={`translate(${x} ${y})`}>
          <rect
            className="piece"
            width={width}
            height={height}
            rx={radius}
            ry={place.shape === 'circle' ? height / 2 : radius}
            strokeWidth={edge}
            {...(typeof place.height === 'number' ? {} : { strokeDasharray: `${edge * 4} ${edge * 3}` })}
          />
        </g>
      ))}
      <svg width={width} height={height} viewBox={`0 0 ${width} ${height}`} overflow="hidden" aria-hidden>
        {place.shownPart && <AreaShape area={place.shownPart} className="shown-part" />}
        {place.covered.map((area) => (
          <AreaShape key={`${area.left} ${area.top} ${area.width}`} area={area} className="covered" />
        ))}
      </svg>
    </svg>
  );
}
