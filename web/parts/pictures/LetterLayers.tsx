import type { Dimensions, LetterLayer } from '@inkwell/core/model';
import type { RenderPlan } from '@inkwell/core/planning';
import { useId } from 'react';
import { previewUrl } from '../../api/library/originals.ts';

/** No emblem is shown larger here, in pixels. */
const emblemWidth = 800;

/** A frame's lettering, drawn from the same outlines as the server's proofs. */
export function LetterLayers(props: { lettering: NonNullable<RenderPlan['lettering']>; output: Dimensions }) {
  const { lettering, output } = props;
  const id = useId();
  return (
    <svg
      className="letter-layers"
      viewBox={`0 0 ${output.width} ${output.height}`}
      preserveAspectRatio="none"
      aria-hidden="true"
    >
      {lettering.layers.map((layer, at) => (
        <Layer key={at} layer={layer} id={`${id}-${at}`} />
      ))}
    </svg>
  );
}

function Layer({ layer, id }: { layer: LetterLayer; id: string }) {
  if (layer.kind === 'picture') {
    const { left, top, width, height } = layer.within;
    return (
      <image
        href={previewUrl({ id: layer.originalId }, emblemWidth)}
        x={left}
        y={top}
        width={width}
        height={height}
        preserveAspectRatio="none"
      />
    );
  }
  if (layer.kind === 'shade') {
    const { within, from, to, colour, opacity } = layer;
    const { left, top, width, height } = within;
    return (
      <>
        <linearGradient id={id} gradientUnits="userSpaceOnUse" x1={from.x} y1={from.y} x2={to.x} y2={to.y}>
          <stop offset="0" stopColor={colour} stopOpacity={opacity} />
          <stop offset="1" stopColor={colour} stopOpacity="0" />
        </linearGradient>
        <rect x={left} y={top} width={width} height={height} fill={`url(#${id})`} />
      </>
    );
  }
  const { path, colour, opacity, stroke, blur } = layer;
  return (
    <>
      {blur > 0 && (
        <filter id={id} x="-50%" y="-50%" width="200%" height="200%" colorInterpolationFilters="sRGB">
          <feGaussianBlur stdDeviation={blur} />
        </filter>
      )}
      <path
        d={path}
        fill={colour}
        opacity={opacity}
        {...(stroke > 0 ? { stroke: colour, strokeWidth: stroke, strokeLinejoin: 'round' as const } : {})}
        {...(blur > 0 ? { filter: `url(#${id})` } : {})}
      />
    </>
  );
}
