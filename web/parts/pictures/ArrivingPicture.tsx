import { type ImgHTMLAttributes, useState } from 'react';

/** A picture that says, as `data-there`, whether it has come: what is still on its way, or never comes, is drawn otherwise. */
export function ArrivingPicture({
  alt,
  src,
  ...others
}: ImgHTMLAttributes<HTMLImageElement> & { alt: string; src: string }) {
  const [there, setThere] = useState<string | null>(null);
  return <img {...others} alt={alt} src={src} data-there={there === src} onLoad={() => setThere(src)} />;
}
