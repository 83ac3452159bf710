import { randomBytes } from 'node:crypto';
import type { NetworkFile, NewPost, Rendition } from '@inkwell/core/model';
import { and, asc, count, desc, eq, sql } from 'drizzle-orm';
import type { StandInDatabase } from './database.ts';
import { accounts, files, posts, renditions } from './schema.ts';

export type StoredPost = typeof posts.$inferSelect;

/** A file that was taken, with everything that was made of it. */
export interface TakenFile {
  number: number;
  sha256: string;
  altText: string;
  kept: Rendition & { data: Buffer };
  shown: (Rendition & { data: Buffer; shownWidth: number })[];
}

/** The token of the one account that a network has: made once, the same from then on. */
export async function tokenOf(db: StandInDatabase, network: string): Promise<string> {
  const token = randomBytes(24).toString('hex');
  await db.insert(accounts).values({ network, token }).onConflictDoNothing();
  const [row] = await db.select().from(accounts).where(eq(accounts.network, network));
  if (!row) throw new Error(`The account of ${network} was not stored.`);
  return row.token;
}

/** Begins a post, or finds the one that was begun under the same key. */
export async function beginPost(
  db: StandInDatabase,
  network: string,
  key: string,
  wanted: NewPost,
): Promise<StoredPost> {
  await db
    .insert(posts)
    .values({ network, key, ...wanted })
    .onConflictDoNothing();
  const [row] = await db
    .select()
    .from(posts)
    .where(and(eq(posts.network, network), eq(posts.key, key)));
  if (!row) throw new Error('The post was not stored.');
  return row;
}

export async function findPost(db: StandInDatabase, network: string, id: string): Promise<StoredPost | null> {
  const [row] = await db
    .select()
    .from(posts)
    .where(and(eq(posts.network, network), eq(posts.id, id)));
  return row ?? null;
}

/** The files of a post, in the order in which they were uploaded. */
export async function filesOfPost(db: StandInDatabase, postId: string): Promise<NetworkFile[]> {
  const rows = await db
    .select({ number: files.number, sha256: files.sha256, altText: files.altText, kept: files.kept })
    .from(files)
    .where(eq(files.postId, postId))
    .orderBy(asc(files.number));
  const shown = await db
    .select({ number: renditions.number, shownWidth: renditions.shownWidth, rendition: renditions.rendition })
    .from(renditions)
    .where(eq(renditions.postId, postId))
    .orderBy(desc(renditions.shownWidth));
  return rows.map((row) => ({
    ...row,
    shown: shown
      .filter(({ number }) => number === row.number)
      .map(({ rendition, shownWidth }) => ({ ...rendition, shownWidth })),
  }));
}

/**
 * Keeps a file of a post that is open, where it is the next one.
 *
 * @returns false where it is not: another was kept meanwhile, or the post is published or gone
 */
export const keepFile = (db: StandInDatabase, postId: string, file: TakenFile): Promise<boolean> =>
  db.transaction(async (tx) => {
    const [post] = await tx.select().from(posts).where(eq(posts.id, postId)).for('update');
    const [known] = await tx.select({ count: count() }).from(files).where(eq(files.postId, postId));
    if (post?.state !== 'open' || (known?.count ?? 0) !== file.number - 1) return false;
    const { number, sha256, altText, kept, shown } = file;
    await tx.insert(files).values({ postId, number, sha256, altText, kept: bare(kept), data: kept.data });
    if (shown.length > 0) {
      await tx
        .insert(renditions)
        .values(
          shown.map((one) => ({ postId, number, shownWidth: one.shownWidth, rendition: bare(one), data: one.data })),
        );
    }
    return true;
  });

const bare = ({ width, height, bytes, format }: Rendition): Rendition => ({ width, height, bytes, format });

/** Publishes a post, once. */
export async function publishPost(db: StandInDatabase, id: string): Promise<void> {
  await db
    .update(posts)
    .set({ state: 'published', number: sql`nextval('standins.published')` })
    .where(and(eq(posts.id, id), eq(posts.state, 'open')));
}

export async function deletePost(db: StandInDatabase, id: string): Promise<void> {
  await db.delete(posts).where(eq(posts.id, id));
}

/** Deletes everything that was posted to a network. */
export async function emptyNetwork(db: StandInDatabase, network: string): Promise<void> {
  await db.delete(posts).where(eq(posts.network, network));
}

export async function publishedCount(db: StandInDatabase, network: string): Promise<number> {
  const [row] = await db
    .select({ count: count() })
    .from(posts)
    .where(and(eq(posts.network, network), eq(posts.state, 'published')));
  return row?.count ?? 0;
}

/** The picture that is kept of a file; null where there is none. */
export async function keptPicture(db: StandInDatabase, postId: string, number: number): Promise<Buffer | null> {
  const [row] = await db
    .select({ data: files.data })
    .from(files)
    .where(and(eq(files.postId, postId), eq(files.number, number)));
  return row?.data ?? null;
}

/** The picture that is shown of a file at a width; null where there is none. */
export async function shownPicture(
  db: StandInDatabase,
  postId: string,
  number: number,
  shownWidth: number,
): Promise<Buffer | null> {
  const [row] = await db
    .select({ data: renditions.data })
    .from(renditions)
    .where(and(eq(renditions.postId, postId), eq(renditions.number, number), eq(renditions.shownWidth, shownWidth)));
  return row?.data ?? null;
}

/** The first pictures of the newest published posts at some places. */
export async function newestPictures(
  db: StandInDatabase,
  network: string,
  most: number,
): Promise<{ place: string; data: Buffer }[]> {
  return db
    .select({ place: posts.place, data: files.data })
    .from(posts)
    .innerJoin(files, and(eq(files.postId, posts.id), eq(files.number, 1)))
    .where(and(eq(posts.network, network), eq(posts.state, 'published')))
    .orderBy(desc(posts.number))
    .limit(most);
}
