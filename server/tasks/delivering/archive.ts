import type { Delivery, Manifest } from '@inkwell/core/model';
import { type KitFile, type KitNetwork, kitFiles, postingKit } from '@inkwell/core/posting';
import yazl from 'yazl';
import { readBlob } from '../../store/blobs/blobs.ts';
import type { Database } from '../../store/database.ts';
import type { StoredDelivery } from '../../store/projects/deliveries.ts';
import { postingPage } from './postingPage.ts';
import { postingTable } from './postingTable.ts';

/** What a delivery, or what of it is for one network, says about itself in the archive, whose files are in posting order. */
const manifestOf = (
  stored: Pick<StoredDelivery, 'projectName'>,
  delivery: Delivery,
  files: readonly KitFile[],
  network: string | null,
): Manifest => ({
  manifest: 2,
  project: stored.projectName,
  delivered: delivery.createdAt,
  files: files.map(({ line, path }) => ({ ...line, file: path })),
  leftOut: delivery.leftOut.filter((one) => network === null || one.network === network),
});

/**
 * The archive of a finished delivery as a stream: the posting kit. Pictures are stored as they are, for they do not get smaller; all
 * dates are the delivery's, so that the same delivery gives the same bytes every time.
 *
 * @param network the only one whose posts are wanted; null for all
 */
export function archiveOf(
  db: Database,
  stored: StoredDelivery,
  delivery: Delivery,
  network: string | null = null,
): NodeJS.ReadableStream {
  const kit = postingKit(delivery.files).filter((one) => network === null || one.network === network);
  const zip = new yazl.ZipFile();
  const options = { mtime: asUtc(stored.createdAt), forceDosTimestamp: true, mode: 0o100644, compress: false };
  const files = kitFiles(kit);
  for (const { line, path } of files) {
    zip.addReadStreamLazy(path, { ...options, size: line.bytes }, (ready) => ready(null, readBlob(db, line.sha256)));
  }
  for (const [name, text] of kitTextsOf(stored, delivery, kit, network))
    zip.addBuffer(Buffer.from(text), name, options);
  zip.end();
  return zip.outputStream;
}

/** Archives carry the hours of a clock without its zone: those of UTC, so that every machine writes the same. */
const asUtc = (date: Date) => new Date(date.getTime() + date.getTimezoneOffset() * 60_000);

/** The texts of an archive by their names. */
export const kitTextsOf = (
  stored: Pick<StoredDelivery, 'projectName'>,
  delivery: Delivery,
  kit: readonly KitNetwork[],
  network: string | null = null,
): [name: string, text: string][] => [
  ['manifest.json', `${JSON.stringify(manifestOf(stored, delivery, kitFiles(kit), network), null, 2)}\n`],
  ['posting.csv', postingTable(kit)],
  ['posting.html', postingPage(stored.projectName, delivery, kit)],
];
