import type { Delivery, ManifestFile } from '@inkwell/core/model';
import { postingKit } from '@inkwell/core/posting';
import type { Services } from '../../services.ts';
import { blobBytes } from '../../store/blobs/blobs.ts';
import { findDelivery } from '../../store/projects/deliveries.ts';
import { postedOf, setPosted } from '../../store/projects/postedTicks.ts';
import { orNotFound, UserError } from '../../userError.ts';

type Stores = Pick<Services, 'db'>;

const what = 'This delivery';

async function delivered({ db }: Stores, id: string): Promise<Delivery> {
  return orNotFound(await findDelivery(db, id), what).delivery;
}

/** One file of a delivery with its bytes. @throws UserError where it has no such file */
export async function deliveredFile(
  services: Stores,
  id: string,
  fileName: string,
): Promise<{ line: ManifestFile; data: Buffer }> {
  const { files } = await delivered(services, id);
  const line = orNotFound(
    files.find(({ file }) => file === fileName),
    'This file',
  );
  return { line, data: orNotFound(await blobBytes(services.db, line.sha256), 'This file') };
}

/** The posts of a delivery that are posted. */
export async function posted(services: Stores, id: string): Promise<string[]> {
  await delivered(services, id);
  return postedOf(services.db, id);
}

/** Ticks a post of a delivery, or takes its tick away. @throws UserError where the delivery has no such post */
export async function tickPost(services: Stores, id: string, post: string, isPosted: boolean): Promise<string[]> {
  const { files } = await delivered(services, id);
  const posts = postingKit(files).flatMap(({ entries }) => entries.flatMap((entry) => entry.posts));
  if (!posts.some(({ key }) => key === post)) {
    throw new UserError('This delivery has no such post. Reload the page to see which it has.', 404);
  }
  await setPosted(services.db, id, post, isPosted);
  return postedOf(services.db, id);
}
