import type { Response } from 'express';

/** Sends a picture that was drawn for an address that names it: browsers keep it for ever. */
export function sendPicture(response: Response, { path, type }: { path: string; type: string }): void {
  response.type(type);
  response.sendFile(path, { immutable: true, maxAge: '1y', dotfiles: 'allow' });
}
