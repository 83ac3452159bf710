import type { Rect } from '@inkwell/core/geometry';
import type { RenderPlan } from '@inkwell/core/planning';
import { type RefObject, useEffect, useRef, useState } from 'react';
import { enlargedPixelsUrl, plainPixelsUrl } from '../../../api/frames.ts';
import { theFinisher } from '../../../workers/theFinisher.ts';

/**
 * Finishes the part of a picture that is looked at in a worker and draws it into a canvas; the newest wish wins.
 *
 * @param finish what is to be carried out; null where the server's own picture is shown
 * @returns the part that the canvas shows; null while it shows nothing
 */
export function useLivePart(
  canvas: RefObject<HTMLCanvasElement | null>,
  wish: { frameId: string; plainHash: string; finish: RenderPlan['finish']; rect: Rect },
): Rect | null {
  const { frameId, plainHash, finish, rect } = wish;
  const { left, top, width, height } = rect;
  const [shown, setShown] = useState<Rect | null>(null);
  const running = useRef(false);
  const newest = useRef<(() => Promise<void>) | null>(null);
  useEffect(() => {
    if (!finish || width < 1 || height < 1) {
      newest.current = null;
      setShown(null);
      return;
    }
    const part = { left, top, width, height };
    newest.current = async () => {
      const pixels = await theFinisher().finish({
        plainUrl: plainPixelsUrl(frameId, plainHash),
        enlargedUrl: enlargedPixelsUrl(frameId, plainHash, finish.oversize),
        finish,
        rect: part,
      });
      if (newest.current === null || !canvas.current) return;
      canvas.current.width = width;
      canvas.current.height = height;
      canvas.current.getContext('2d')?.putImageData(new ImageData(pixels, width, height), 0, 0);
      setShown(part);
    };
    const run = async () => {
      if (running.current) return;
      running.current = true;
      // What was wished meanwhile is done next; what was wished in between is left out.
      for (let job = newest.current; job; job = job === newest.current ? null : newest.current) {
        // Pixels that cannot be had leave the server's picture standing, which is right all the same.
        await job().catch(() => setShown(null));
      }
      running.current = false;
    };
    void run();
  }, [canvas, frameId, plainHash, finish, left, top, width, height]);
  return finish ? shown : null;
}
