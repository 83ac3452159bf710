import { Segmented, Slider } from 'antd';
import { type ComponentProps, useState } from 'react';
import { type Surround, surrounds } from '../../../theme/palette.ts';
import { PlainNote } from './PlainNote.tsx';
import { Wall } from './Wall.tsx';

/** Side of a square picture on the wall at first, in CSS pixels. */
const defaultScale = 150;

/** The right side of the bench: the wall on its surround, and what its pictures are scaled by. */
export function WallPart({
  surround,
  onAudience,
  ...wall
}: Omit<ComponentProps<typeof Wall>, 'scale'> & { surround: Surround; onAudience: (audience: boolean) => void }) {
  const [scale, setScale] = useState(defaultScale);
  const [first, ...others] = wall.frames;
  return (
    <section
      className="bench-wall"
      aria-label="Wall"
      style={{ background: surrounds[surround] }}
      data-surround={surround}
    >
      {first && <PlainNote frames={[first, ...others]} />}
      <Wall {...wall} scale={scale} />
      <div className="wall-scale">
        <Segmented<'alike' | 'shown'>
          size="small"
          aria-label="Scale of the pictures"
          value={wall.audience ? 'shown' : 'alike'}
          onChange={(value) => onAudience(value === 'shown')}
          options={[
            { value: 'alike', label: 'Alike', title: 'Every picture takes the same area' },
            { value: 'shown', label: 'As shown', title: 'Every picture at the widths at which the audience sees it' },
          ]}
        />
        <span className="visually-hidden" id="wall-scale">
          Scale of the wall
        </span>
        <Slider
          min={90}
          disabled={wall.audience}
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
