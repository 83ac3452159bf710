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

/** A file of an archive by its own name, in whichever folder it lies. */
export function fileNamed(archive: ReadonlyMap<string, Buffer>, name: string): Buffer | undefined {
  return [...archive].find(([path]) => path.split('/').at(-1)?.endsWith(name))?.[1];
}
