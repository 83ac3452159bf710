import { moveBlob, removeUnneeded, someBlobs } from '../../store/blobs/moving.ts';
import type { Database } from '../../store/database.ts';
import type { BlobPlace } from '../../store/schema/index.ts';

/** Each waits for two stores in turn: a few at a time keep both busy. */
const atATime = 4;
const page = 200;

/**
 * Moves all bytes to a place, while the program is at work. Broken off at any moment it has moved some of them; run again, it moves
 * the others.
 *
 * @param onMoved hears of each blob
 * @throws the first thing that goes wrong, after what was begun is done
 */
export async function moveBlobs(db: Database, to: BlobPlace, onMoved: (bytes: number) => void): Promise<void> {
  const from: BlobPlace = to === 's3' ? 'database' : 's3';
  let after = '';
  for (;;) {
    const hashes = await someBlobs(db, from, after, page);
    after = hashes.at(-1) ?? '';
    if (after === '') break;
    const left = [...hashes];
    const lane = async () => {
      for (let sha256 = left.shift(); sha256; sha256 = left.shift()) onMoved((await moveBlob(db, sha256, to)) ?? 0);
    };
    const lanes = await Promise.allSettled(Array.from({ length: atATime }, lane));
    const failed = lanes.find((one) => one.status === 'rejected');
    if (failed) throw failed.reason;
  }
  if (to === 'database') await removeUnneeded(db);
}
