import type { Delivery, Manifest } from '@inkwell/core/model';
import { postingInstructions } from '@inkwell/core/splitting';
import yazl from 'yazl';
import type { Database } from '../../store/database.ts';
import { readBlob } from '../../store/library/blobs.ts';
import type { StoredDelivery } from '../../store/projects/deliveries.ts';

/** What a delivery says about itself, in the archive and in the interface. */
export function manifestOf(stored: StoredDelivery, delivery: Delivery): Manifest {
  return {
    manifest: 1,
    project: stored.projectName,
    delivered: delivery.createdAt,
    files: delivery.files,
    leftOut: delivery.leftOut,
  };
}

/**
 * The archive of a finished delivery as a stream. Pictures are stored as they are, for they do not get smaller; all
 * dates are the delivery's, so that the same delivery gives the same bytes every time.
 */
export function archiveOf(db: Database, stored: StoredDelivery, delivery: Delivery): NodeJS.ReadableStream {
  const zip = new yazl.ZipFile();
  const options = { mtime: stored.createdAt, mode: 0o100644, compress: false };
  const manifest = Buffer.from(`${JSON.stringify(manifestOf(stored, delivery), null, 2)}\n`);
  for (const file of [...delivery.files].sort((a, b) => (a.file < b.file ? -1 : 1))) {
    zip.addReadStreamLazy(file.file, { ...options, size: file.bytes }, (ready) =>
      ready(null, readBlob(db, file.sha256)),
    );
  }
  zip.addBuffer(manifest, 'manifest.json', options);
  const posting = postingInstructions(delivery.files);
  if (posting !== '') zip.addBuffer(Buffer.from(posting), 'posting.txt', options);
  zip.end();
  return zip.outputStream;
}
