import type { Rect } from '@inkwell/core/geometry';
import type { Dimensions } from '@inkwell/core/model';
import type { RenderPlan } from '@inkwell/core/planning';
import { type RefObject, useEffect, useRef, useState } from 'react';
import { countedUrl, enlargedPixelsUrl, plainPixelsUrl } from '../../../api/projects/frames.ts';
import { theFinisher } from '../../../workers/theFinisher.ts';

/**
 * Finishes the part of a picture that is looked at in a worker and draws it into a canvas; the newest wish wins.
 *
 * @param finish what is to be carried out; null where the server's own picture is shown
 * @returns the part that the canvas shows, null while it shows nothing; and whether the pixels for it could not be had,
 *   which leaves the server's last picture standing
 */
export function useLivePart(
  canvas: RefObject<HTMLCanvasElement | null>,
  wish: {
    frameId: string;
    /** What the server calls the plain picture; null where it does not have it yet. */
    plainHash: string | null;
    finish: RenderPlan['finish'];
    /** Of the whole picture, and the part of it that is looked at. */
    picture: Dimensions;
    rect: Rect;
  },
): { shown: Rect | null; failed: boolean } {
  const { frameId, plainHash, finish, picture, rect } = wish;
  const { left, top, width, height } = rect;
  const { width: wholeWidth, height: wholeHeight } = picture;
  const [shown, setShown] = useState<Rect | null>(null);
  const [failed, setFailed] = useState(false);
  const running = useRef(false);
  const newest = useRef<(() => Promise<void>) | null>(null);
  useEffect(() => {
    if (!finish || plainHash === null || width < 1 || height < 1) {
      newest.current = null;
      setShown(null);
      return;
    }
    const part = { left, top, width, height };
    newest.current = async () => {
      const pixels = await theFinisher().finish({
        plainUrl: plainPixelsUrl(frameId, plainHash),
        countedUrl: countedUrl(frameId, plainHash, { width: wholeWidth, height: wholeHeight }),
        picture: { width: wholeWidth, height: wholeHeight },
        enlargedUrl: enlargedPixelsUrl(frameId, plainHash, finish.oversize),
        finish,
        rect: part,
      });
      if (newest.current === null || !canvas.current) return;
      canvas.current.width = width;
      canvas.current.height = height;
      canvas.current.getContext('2d')?.putImageData(new ImageData(pixels, width, height), 0, 0);
      setShown(part);
      setFailed(false);
    };
    const run = async () => {
      if (running.current) return;
      running.current = true;
      // What was wished meanwhile is done next; what was wished in between is left out.
      for (let job = newest.current; job; job = job === newest.current ? null : newest.current) {
        await job().catch(() => {
          setShown(null);
          setFailed(true);
        });
      }
      running.current = false;
    };
    void run();
  }, [canvas, frameId, plainHash, finish, left, top, width, height, wholeWidth, wholeHeight]);
  return finish ? { shown, failed } : { shown: null, failed: false };
}
