import { buffer } from 'node:stream/consumers';
import yauzl from 'yauzl';

/** All files of an archive by name, in the order of the archive. */
export async function unzip(archive: Buffer): Promise<Map<string, Buffer>> {
  const zip = await yauzl.fromBufferPromise(archive);
  const files = new Map<string, Buffer>();
  for await (const entry of zip.eachEntry())
    files.set(entry.fileName, await buffer(await zip.openReadStreamPromise(entry)));
  return files;
}
