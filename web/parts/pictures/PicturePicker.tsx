import type { Point } from '@inkwell/core/geometry';
import type { Original } from '@inkwell/core/model';
import { type MouseEvent, useEffect, useRef, useState } from 'react';
import { colourOf, previewUrl } from '../../api/library/originals.ts';
import { palette } from '../../theme/palette.ts';
import { movingPreviewWidth } from './FramePicture.tsx';

/** So many pixels of the preview are seen under the loupe, each way: an odd number, so that one lies in the middle. */
const seen = 13;
const loupeSide = 110;

/**
 * Takes a colour from a picture: under the loupe lie the pixels round the pointer, the one in the middle is taken by a
 * click. Arrow keys move by one of those pixels (Shift: by ten), Enter takes. The colour comes from the original itself.
 */
export function PicturePicker(props: {
  original: Original;
  onPick: (colour: string) => void;
  /** The pixel has no colour, or it could not be asked for. */
  onNothing: (reason: unknown) => void;
}) {
  const { original, onPick, onNothing } = props;
  const [at, setAt] = useState({ x: 0.5, y: 0.5 });
  const [loaded, setLoaded] = useState(false);
  const image = useRef<HTMLImageElement>(null);
  const loupe = useRef<HTMLCanvasElement>(null);

  useEffect(() => {
    const canvas = loupe.current?.getContext('2d');
    const { current: picture } = image;
    if (!canvas || !picture || !loaded) return;
    const left = Math.floor(at.x * picture.naturalWidth) - (seen - 1) / 2;
    const top = Math.floor(at.y * picture.naturalHeight) - (seen - 1) / 2;
    const cell = loupeSide / seen;
    canvas.imageSmoothingEnabled = false;
    canvas.clearRect(0, 0, loupeSide, loupeSide);
    canvas.drawImage(picture, left, top, seen, seen, 0, 0, loupeSide, loupeSide);
    const middle = ((seen - 1) / 2) * cell;
    for (const [grow, colour] of [
      [1.5, palette.outline],
      [0, palette.outlineEdge],
    ] as const) {
      canvas.strokeStyle = colour;
      canvas.lineWidth = 1.5;
      canvas.strokeRect(middle - grow, middle - grow, cell + 2 * grow, cell + 2 * grow);
    }
  }, [at, loaded]);

  const within = (value: number) => Math.min(0.999_999, Math.max(0, value));
  const pointed = (event: MouseEvent<HTMLElement>) => {
    const box = event.currentTarget.getBoundingClientRect();
    return { x: within((event.clientX - box.left) / box.width), y: within((event.clientY - box.top) / box.height) };
  };
  const take = (at: Point) =>
    colourOf(original.id, Math.floor(at.x * original.width), Math.floor(at.y * original.height)).then(
      (colour) => (colour ? onPick(colour) : onNothing(null)),
      onNothing,
    );
  const step = (x: number, y: number) => {
    const { naturalWidth = 1, naturalHeight = 1 } = image.current ?? {};
    setAt({ x: within(at.x + x / naturalWidth), y: within(at.y + y / naturalHeight) });
  };
  return (
    <div className="picture-picker">
      <button
        type="button"
        className="plain-button picture-picker-picture"
        aria-label="Take a colour from the picture: arrow keys move the loupe, Enter takes"
        onPointerMove={(event) => setAt(pointed(event))}
        // Enter comes as a click that is nowhere. A hand may click before its last movement has been shown.
        onClick={(event) => take(event.detail === 0 ? at : pointed(event))}
        onKeyDown={(event) => {
          const by = event.shiftKey ? 10 : 1;
          if (event.key === 'ArrowLeft') step(-by, 0);
          else if (event.key === 'ArrowRight') step(by, 0);
          else if (event.key === 'ArrowUp') step(0, -by);
          else if (event.key === 'ArrowDown') step(0, by);
          else return;
          event.preventDefault();
        }}
      >
        <img
          ref={image}
          alt=""
          src={previewUrl(original, movingPreviewWidth)}
          onLoad={() => setLoaded(true)}
          onError={onNothing}
        />
        <span className="picture-picker-at" style={{ left: `${at.x * 100}%`, top: `${at.y * 100}%` }} />
      </button>
      <canvas ref={loupe} width={loupeSide} height={loupeSide} />
    </div>
  );
}
