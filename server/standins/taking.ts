import { createHash } from 'node:crypto';
import type { Place } from '@inkwell/core/model';
import { refusalOf, uploadedFile } from './gate.ts';
import type { NetworkSheet } from './networkSheet.ts';
import { processed } from './processing/processing.ts';
import { Refused } from './refused.ts';
import type { StandInDatabase } from './store/database.ts';
import { filesOfPost, keepFile, type StoredPost } from './store/posts.ts';

/** A place of a network. @throws Refused where it has none of that name */
export function placeNamed({ places }: Pick<NetworkSheet, 'places'>, slug: string): Place {
  const place = places.find((one) => one.slug === slug);
  if (!place) throw new Refused(404, { code: 'unknown place' });
  return place;
}

/** Makes sure that a post of a place may have so many files. @throws Refused */
export function checkPieces({ group }: Place, pieces: number): void {
  const most = group?.kind === 'panels' ? group.max : group?.kind === 'block' ? group.columns * group.rows : 1;
  const least = group?.kind === 'panels' ? group.min : most;
  const counts = { allowed: least === most ? `${most}` : `${least} to ${most}`, measured: `${pieces}` };
  if (pieces > most) throw new Refused(422, { code: 'too many files', ...counts, mostFiles: most });
  if (pieces < least) throw new Refused(422, { code: 'too few files', ...counts });
}

export interface FileToTake {
  /** In the order of uploading, from 1. */
  number: number;
  data: Buffer;
  altText: string;
}

/** Takes a file as the next one of a post. False where it was taken before: asked twice, it is one. @throws Refused */
export async function takeFile(
  db: StandInDatabase,
  sheet: NetworkSheet,
  post: StoredPost,
  { number, data, altText }: FileToTake,
): Promise<boolean> {
  const sha256 = createHash('sha256').update(data).digest('hex');
  if (await isTaken(db, post, number, sha256)) return false;
  if (post.state === 'published') throw new Refused(409, { code: 'already published' });
  const place = placeNamed(sheet, post.place);
  const file = await uploadedFile(data);
  if (!file) throw new Refused(422, { code: 'unreadable picture' });
  const refusal = refusalOf(file, place, sheet.gate);
  if (refusal) throw new Refused(refusal.code === 'too heavy' ? 413 : 422, refusal);
  const made = await processed(data, place, sheet.afterUpload, post.columns);
  if (await keepFile(db, post.id, { number, sha256, altText, ...made })) return true;
  if (await isTaken(db, post, number, sha256)) return false;
  throw new Refused(409, { code: 'out of order' });
}

/** Whether a file was taken under a number. @throws Refused where another was, or the post has no such file */
async function isTaken(db: StandInDatabase, post: StoredPost, number: number, sha256: string): Promise<boolean> {
  const known = (await filesOfPost(db, post.id)).find((one) => one.number === number);
  if (known && known.sha256 !== sha256) throw new Refused(409, { code: 'other content' });
  if (!known && number > post.pieces) throw new Refused(409, { code: 'too many files' });
  return known !== undefined;
}
