import type { Response } from 'express';
import { forEver } from '../../tasks/plans/askedFrame.ts';

/** Sends a picture that was drawn for an address that names it: browsers keep it for ever, and no proxy on the way does. */
export function sendPicture(response: Response, { path, type }: { path: string; type: string }): void {
  response.setHeader('Cache-Control', forEver);
  response.type(type);
  response.sendFile(path, { cacheControl: false, dotfiles: 'allow' });
}
