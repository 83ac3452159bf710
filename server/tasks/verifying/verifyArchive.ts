import { createHash } from 'node:crypto';
import type { Readable } from 'node:stream';
import { type Manifest, ManifestSchema } from '@inkwell/core/model';
import { type FoundFile, kitTexts, type Observation, verified } from '@inkwell/core/posting';
import yauzl from 'yauzl';
import { measureFile } from '../../imaging/measuring/opening.ts';
import { shippedPlaces } from '../../standins/shippedSheets.ts';
import { UserError } from '../../userError.ts';

/** A text of an archive has at most so many bytes, and a picture so many: more are not read, whatever an archive claims. */
const most = { text: 64_000_000, picture: 256_000_000, entries: 20_000 } as const;

export interface Verification {
  manifest: Manifest;
  observations: Observation[];
}

/**
 * Holds the archive of a delivery against its manifest and the spec book, without any database.
 *
 * @param path of the archive
 * @throws UserError where it cannot be read, is no archive, or has no manifest that can be understood
 */
export async function verifyArchive(path: string): Promise<Verification> {
  const zip = await yauzl.openPromise(path).catch((error: NodeJS.ErrnoException) => {
    const isMissing = error.code === 'ENOENT';
    throw new UserError(
      isMissing ? `There is no file ${path}.` : `${path} cannot be read as an archive: ${sentence(error)}`,
      isMissing ? 404 : 422,
    );
  });
  const found: FoundFile[] = [];
  const twice: Observation[] = [];
  let manifest: Manifest | null = null;
  try {
    if (zip.entryCount > most.entries) throw new UserError(`${path} has more than ${most.entries} files.`);
    for await (const entry of zip.eachEntry()) {
      const { fileName } = entry;
      if (fileName.endsWith('/')) continue;
      const isText = kitTexts.includes(fileName);
      const data = await bytesOf(await zip.openReadStreamPromise(entry), isText ? most.text : most.picture);
      if (!data) throw new UserError(`${fileName} is larger than any file of a delivery.`);
      if (fileName === 'manifest.json') manifest = readManifest(data);
      if (found.some((file) => file.path === fileName)) {
        twice.push({ path: fileName, isWrong: true, text: 'It is in the archive twice.' });
      }
      found.push({
        path: fileName,
        sha256: createHash('sha256').update(data).digest('hex'),
        opened: isText ? null : await measureFile(data).catch(() => null),
      });
    }
  } catch (error) {
    if (error instanceof UserError) throw error;
    throw new UserError(`${path} is damaged: ${sentence(error)}`);
  } finally {
    zip.close();
  }
  if (!manifest) throw new UserError(`${path} has no manifest.json: it is no archive of a delivery.`);
  return { manifest, observations: [...twice, ...verified(manifest, found, shippedPlaces())] };
}

/** What a library says, with one full stop at its end. */
const sentence = (error: unknown) => `${error instanceof Error ? error.message : String(error)}`.replace(/\.*$/, '.');

function readManifest(data: Buffer): Manifest {
  let read: unknown;
  try {
    read = JSON.parse(data.toString('utf8'));
  } catch {
    throw new UserError('The manifest is not readable: it is no JSON.');
  }
  const version = typeof read === 'object' && read !== null && 'manifest' in read ? read.manifest : null;
  if (version !== 2) {
    throw new UserError(
      `The manifest is of version ${String(version)}; this program reads version 2. ` +
        (version === 1 ? 'Download the archive again.' : 'Verify it with the program that made it.'),
    );
  }
  const manifest = ManifestSchema.safeParse(read);
  if (manifest.success) return manifest.data;
  const [issue] = manifest.error.issues;
  throw new UserError(`The manifest is not as it was written: ${issue?.path.join('.')}: ${issue?.message}.`);
}

/** All bytes of a stream; null where there are more than `bound`. */
async function bytesOf(stream: Readable, bound: number): Promise<Buffer | null> {
  const chunks: Buffer[] = [];
  let bytes = 0;
  for await (const chunk of stream) {
    bytes += chunk.length;
    if (bytes > bound) {
      stream.destroy();
      return null;
    }
    chunks.push(chunk);
  }
  return Buffer.concat(chunks);
}
