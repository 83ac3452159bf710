import { and, isNotNull, lt, sql } from 'drizzle-orm';
import { clearDoorEvents } from '../access/doorEvents.ts';
import { clearMails } from '../access/mails.ts';
import { clearCalls } from '../access/webhooks.ts';
import type { Database } from '../database.ts';
import { boundEncodings } from '../measured/encodings.ts';
import { clearHistory } from '../projects/history.ts';
import { type BlobPlace, originals, projects, turns, unneededObjects, webhooks } from '../schema/index.ts';

/** Encodings of so many bytes are kept. */
const encodingsBound = 4_000_000_000;

/** How long something deleted can be taken back. */
export const keepDeletedDays = 7;

/** Whether anything needs the bytes of a blob but an encoding, which can be made again. */
export const isUsed = sql`(
  exists (select from originals where originals.sha256 = blobs.sha256)
  or exists (select from delivery_files where delivery_files.sha256 = blobs.sha256)
  or exists (select from dry_run_pictures where dry_run_pictures.sha256 = blobs.sha256)
  or exists (select from own_fonts where own_fonts.sha256 = blobs.sha256)
  or exists (
    select from projects, jsonb_array_elements(projects.lettering) as item
    where item #>> '{picture,sha256}' = blobs.sha256
  )
  or exists (
    select from deliveries, jsonb_array_elements(deliveries.items) as item
    where deliveries.state in ('waiting', 'working') and (
      item #>> '{plan,original,sha256}' = blobs.sha256
      or jsonb_path_exists(
        item,
        '$.plan.lettering.layers[*].picture ? (@.sha256 == $sha256)',
        jsonb_build_object('sha256', blobs.sha256)
      )
    )
  ))`;

/**
 * Clears away what was deleted more than `days` ago and the encodings that were used longest ago, then the bytes that nothing
 * uses any more. Bytes stay while an original, a font, an emblem of a project, an encoding, a delivered file, a dry run, or a delivery that is
 * still to be made needs them.
 *
 * @returns the SHA-256 of every blob that went
 */
export async function clearUnused(db: Database, days: number = keepDeletedDays): Promise<string[]> {
  return db.transaction(async (tx) => {
    const before = sql`now() - make_interval(days => ${days})`;
    await tx.delete(projects).where(and(isNotNull(projects.deletedAt), lt(projects.deletedAt, before)));
    await tx.delete(originals).where(and(isNotNull(originals.deletedAt), lt(originals.deletedAt, before)));
    await tx.delete(webhooks).where(and(isNotNull(webhooks.deletedAt), lt(webhooks.deletedAt, before)));
    await tx.delete(turns).where(lt(turns.at, before));
    await clearCalls(tx);
    await clearMails(tx);
    await clearDoorEvents(tx);
    await clearHistory(tx);
    await boundEncodings(tx, encodingsBound);
    const gone = await tx.execute<{ sha256: string; place: BlobPlace }>(sql`
      delete from blobs
      where not ${isUsed} and not exists (select from encodings where encodings.sha256 = blobs.sha256)
      returning sha256, place`);
    const left = gone.rows.flatMap(({ sha256, place }) => (place === 's3' ? [{ sha256 }] : []));
    if (left.length > 0) await tx.insert(unneededObjects).values(left).onConflictDoNothing();
    return gone.rows.map((row) => row.sha256);
  });
}
