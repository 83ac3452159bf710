import './FramePicture.css';
import { windowRect } from '@inkwell/core/geometry';
import type { Dimensions, Original, Place, Window } from '@inkwell/core/model';
import { useState } from 'react';
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
  /** The plan whose proof is shown; null while a hand moves the frame or a save is on its way. */
  planHash: string | null;
  width: number;
}) {
  const { frameId, original, place, output, window, planHash, width } = props;
  const [loaded, setLoaded] = useState<string | null>(null);
  const height = (width * output.height) / output.width;
  const scale = width / window.span;
  const rect = windowRect(window, output);
  const pixels = Math.min(output.width, Math.ceil((width * devicePixelRatio) / proofStep) * proofStep);
  const proved = planHash !== null && loaded === planHash;
  return (
    <span className="frame-picture" data-shape={place.shape} data-true={proved} style={{ width, height }}>
      {!proved && (
        <img
          alt=""
          className="moving"
          decoding="sync"
          src={previewUrl(original, movingPreviewWidth)}
          style={{
            width: original.width * scale,
            height: original.height * scale,
            transform: `translate(${-rect.left * scale}px, ${-rect.top * scale}px)`,
          }}
        />
      )}
      {planHash && (
        <img
          alt=""
          className="proof"
          src={proofUrl(frameId, planHash, pixels)}
          style={{ visibility: proved ? 'visible' : 'hidden' }}
          onLoad={() => setLoaded(planHash)}
        />
      )}
    </span>
  );
}
