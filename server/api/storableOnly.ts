import type { RequestHandler } from 'express';
import { isStorable } from '../storable.ts';
import { UserError } from '../userError.ts';

/** Whether every text in a value, names of its fields included, can be stored. */
function isAllStorable(value: unknown): boolean {
  if (typeof value === 'string') return isStorable(value);
  if (Array.isArray(value)) return value.every(isAllStorable);
  if (value === null || typeof value !== 'object') return true;
  return Object.entries(value).every(([name, inner]) => isStorable(name) && isAllStorable(inner));
}

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
