import './FramePicture.css';
import { roundedRadius } from '@inkwell/core/framing';
import { frameAxes, pictureBox } from '@inkwell/core/geometry';
import type { Backing, Dimensions, Original, Place, Window } from '@inkwell/core/model';
import { type CSSProperties, useState } from 'react';
import { proofUrl } from '../api/frames.ts';
import { previewUrl } from '../api/originals.ts';

/** The width of the picture of an original that movements are shown with. */
export const movingPreviewWidth = 2000;
const proofStep = 64;

/**
 * A frame's picture at `width` CSS pixels: the server's proof where there is one for what is set, and the moved preview
 * of the original until then. Both follow from the same window, so that nothing jumps when one replaces the other.
 */
export function FramePicture(props: {
  frameId: string;
  original: Original;
  place: Pick<Place, 'shape'>;
  output: Dimensions;
  window: Window;
  backing: Backing | null;
  /** The plan whose proof is shown; null while a hand moves the frame or a save is on its way. */
  planHash: string | null;
  width: number;
}) {
  const { frameId, original, place, output, window, backing, planHash, width } = props;
  const [loaded, setLoaded] = useState<string | null>(null);
  const height = (width * output.height) / output.width;
  const pixels = Math.min(output.width, Math.ceil((width * devicePixelRatio) / proofStep) * proofStep);
  const proved = planHash !== null && loaded === planHash;
  const preview = previewUrl(original, movingPreviewWidth);
  return (
    <span
      className="frame-picture"
      data-shape={place.shape}
      data-true={proved}
      style={{
        width,
        height,
        ...(place.shape === 'rounded' ? { borderRadius: (roundedRadius(output) * width) / output.width } : {}),
        ...(backing?.kind === 'colour' ? { background: backing.colour } : {}),
      }}
    >
      {!proved && backing?.kind === 'echo' && <img alt="" className="echo" src={preview} />}
      {!proved && (
        <img
          alt=""
          className="moving"
          decoding="sync"
          src={preview}
          style={movedPreview(original, window, { width, height })}
        />
      )}
      {planHash && (
        <img
          alt=""
          className="proof"
          data-transparent={backing?.kind === 'transparent'}
          src={proofUrl(frameId, planHash, pixels)}
          style={{ visibility: proved ? 'visible' : 'hidden' }}
          onLoad={() => setLoaded(planHash)}
        />
      )}
    </span>
  );
}

/** Lays the preview of an original so that a box of CSS pixels shows what the window shows. */
function movedPreview(original: Original, window: Window, box: Dimensions): CSSProperties {
  const scale = box.width / window.span;
  const { across, down } = frameAxes(window);
  const [x, y] = [window.centreX * scale, window.centreY * scale];
  const left = box.width / 2 - (across.x * x + across.y * y);
  const top = box.height / 2 - (down.x * x + down.y * y);
  const trim = pictureBox(original);
  const right = original.width - trim.left - trim.width;
  const bottom = original.height - trim.top - trim.height;
  return {
    width: original.width * scale,
    height: original.height * scale,
    transform: `matrix(${across.x}, ${down.x}, ${across.y}, ${down.y}, ${left}, ${top})`,
    ...(original.trim
      ? { clipPath: `inset(${trim.top * scale}px ${right * scale}px ${bottom * scale}px ${trim.left * scale}px)` }
      : {}),
  };
}
