import type { RequestHandler } from 'express';
import { isAllStorable } from '../../database/storable.ts';
import { UserError } from '../../userError.ts';

/** Refuses what no database can hold in a text: the character U+0000, and half of a character. */
export const storableOnly: RequestHandler = (request, _response, next) => {
  if (!isAllStorable([request.url, request.query, request.body])) {
    throw new UserError(
      'A text holds a character that cannot be stored: U+0000, or half of a character. Take it out and try again.',
      400,
    );
  }
  next();
};
