import { Slider } from 'antd';
import { type ComponentProps, useState } from 'react';
import { type Surround, surrounds } from '../../theme/palette.ts';
import { Wall } from './Wall.tsx';

/** Side of a square picture on the wall at first, in CSS pixels. */
const defaultScale = 150;

/** The right side of the bench: the wall on its surround, and the slider for its scale. */
export function WallPart({ surround, ...wall }: Omit<ComponentProps<typeof Wall>, 'scale'> & { surround: Surround }) {
  const [scale, setScale] = useState(defaultScale);
  return (
    <section
      className="bench-wall"
      aria-label="Wall"
      style={{ background: surrounds[surround] }}
      data-surround={surround}
    >
      <Wall {...wall} scale={scale} />
      <div className="wall-scale">
        <span className="visually-hidden" id="wall-scale">
          Scale of the wall
        </span>
        <Slider
          min={90}
          max={320}
          value={scale}
          onChange={setScale}
          tooltip={{ open: false }}
          ariaLabelledByForHandle="wall-scale"
        />
      </div>
    </section>
  );
}
