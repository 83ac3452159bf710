import { useEffect, useState } from 'react';

/** The picture at `url` once it is there, null until then. */
export function useLoadedImage(url: string): HTMLImageElement | null {
  const [loaded, setLoaded] = useState<{ url: string; image: HTMLImageElement } | null>(null);
  useEffect(() => {
    const coming = new window.Image();
    coming.onload = () => setLoaded({ url, image: coming });
    coming.src = url;
    return () => {
      coming.onload = null;
    };
  }, [url]);
  return loaded?.url === url ? loaded.image : null;
}
