import { refusedFile } from '@inkwell/core/dryRunning';
import type { DryRunOutcome, NetworkPost } from '@inkwell/core/model';
import { alternativeText } from '@inkwell/core/posting';
import type { DryRunItem } from '../../store/schema/index.ts';
import { type NetworkClient, NetworkRefused } from './networkClient.ts';

/** A file of a post with where it stands in its run. */
export interface Upload {
  position: number;
  item: DryRunItem;
}

/** What became of one file of a post, with the bytes of the pictures that came back. */
export interface PostOutcome {
  position: number;
  outcome: DryRunOutcome;
  pictures?: readonly Buffer[];
}

/** Thrown where nobody wants the run any more. */
export class Cancelled extends Error {}

export interface PostToUpload {
  /** Under which the network knows the post: asked for again, it is the same. */
  key: string;
  /** In the order of uploading. */
  uploads: readonly Upload[];
  bytesOf: (item: DryRunItem) => Promise<Buffer>;
  /** @throws Cancelled */
  goOn: () => Promise<void>;
}

/**
 * Uploads the files of one post in their order and publishes it. Whatever of that is done already is not done again. A post that is
 * not taken whole is not left behind half.
 *
 * @returns the published post, or why each of its files is not posted
 * @throws NetworkAway where it has to go on later; Cancelled
 */
export async function uploadPost(
  client: NetworkClient,
  { key, uploads, bytesOf, goOn }: PostToUpload,
): Promise<NetworkPost | PostOutcome[]> {
  const [first] = uploads as [Upload];
  const { line, place } = first.item;
  const pieces = uploads.length;
  const columns = pieces === 1 ? 1 : (line.piece?.columns ?? 1);
  const caption = [line.posting?.caption, line.posting?.tags].filter(Boolean).join('\n\n');
  let post: NetworkPost;
  await goOn();
  try {
    post = await client.begin(key, { place, pieces, columns, caption });
  } catch (error) {
    if (!(error instanceof NetworkRefused)) throw error;
    return refusedAt(uploads, 0, error);
  }
  try {
    while (post.state === 'open' && post.files.length < pieces) {
      await goOn();
      const at = post.files.length;
      const { item } = uploads[at] as Upload;
      try {
        post = await client.upload(post, at + 1, await bytesOf(item), alternativeText(item.line));
      } catch (error) {
        if (!(error instanceof NetworkRefused)) throw error;
        await client.delete(post);
        return refusedAt(uploads, at, error);
      }
    }
    await goOn();
    return post.state === 'published' ? post : await client.publish(post);
  } catch (error) {
    if (error instanceof Cancelled) await client.delete(post);
    throw error;
  }
}

/** One file is refused, and with it its whole post. */
function refusedAt(uploads: readonly Upload[], at: number, { refusal }: NetworkRefused): PostOutcome[] {
  return uploads.map(({ position, item }, index) => {
    if (index === at) return { position, outcome: { state: 'refused', refusal: refusedFile(refusal, item.line) } };
    const which = uploads.length === 2 ? 'the other file' : `file ${at + 1} of ${uploads.length}`;
    const why = `Its post was not published, because ${which} was refused.`;
    return { position, outcome: { state: 'held back', why } };
  });
}
