import { type NetworkRefusal, type NetworkRefusalCode, standInNotice } from '@inkwell/core/model';
import type { Refusal } from './gate.ts';

/** What a network does not do, as it is answered. */
export class Refused extends Error {
  constructor(
    readonly status: number,
    readonly refusal: Refusal,
    /** Seconds after which it is worth asking again. */
    readonly retryAfter: number | null = null,
  ) {
    super(refusal.code);
  }
}

/** What a network says where its file has no words of its own. */
const usualWords: Record<NetworkRefusalCode, string> = {
  'wrong token': 'Sign in again.',
  'too many requests': 'Too many requests. Wait a moment.',
  'unknown place': 'There is no such place here.',
  'unreadable request': 'This request cannot be understood.',
  'no such post': 'There is no such post.',
  'already published': 'This post is published already.',
  'out of order': 'Upload the files of a post in their order.',
  'other content': 'Another file was uploaded in this place before.',
  'too many files': 'This post has too many files.',
  'too few files': 'This post does not have all its files yet.',
  'unreadable picture': 'This file cannot be opened.',
  format: 'This kind of file is not taken.',
  animated: 'Moving pictures are not taken here.',
  'colour model': 'The colours of this file are not supported.',
  alpha: 'Pictures with transparent parts are not taken.',
  dimensions: 'The dimensions of this picture are not supported.',
  ratio: 'The shape of this picture is not supported.',
  'too heavy': 'This file is too large.',
  broken: 'Something went wrong on our side. Try again later.',
};

/** A refusal in a network's own words, as it goes over the wire. */
export const spoken = (refusal: Refusal, words: Partial<Record<NetworkRefusalCode, string>>): NetworkRefusal => ({
  standIn: true,
  notice: standInNotice,
  error: { message: words[refusal.code] ?? usualWords[refusal.code], ...refusal },
});
