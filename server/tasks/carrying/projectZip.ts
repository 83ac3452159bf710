import { createHash } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { type ProjectFile, ProjectFileSchema, projectFileLimits } from '@inkwell/core/model';
import yauzl from 'yauzl';
import { isAllStorable } from '../../database/storable.ts';
import { UserError } from '../../userError.ts';

/** What a project file is made of: a text with all that is set, and bytes by their SHA-256. */
export const textEntry = 'project.json';
export const bytesEntry = {
  original: (sha256: string) => `originals/${sha256}`,
  font: (sha256: string) => `fonts/${sha256}`,
} as const;

/** A project file that is open. */
export interface ProjectZip {
  file: ProjectFile;
  /** Writes bytes of it into a file. @throws UserError where they are not what the project says */
  extract(entry: string, to: string, whole: { sha256: string; bytes: number }): Promise<void>;
  close(): void;
}

const damaged = (why: string) =>
  new UserError(`This project file is damaged: ${why} Nothing was taken. Export the project again.`);

/** What a library says, with one full stop at its end. */
const sentence = (error: unknown) => `${error instanceof Error ? error.message : String(error)}`.replace(/\.*$/, '.');

/** Opens a project file. @throws UserError where it is none, or this program cannot read it */
export async function openProjectZip(path: string): Promise<ProjectZip> {
  const zip = await yauzl.openPromise(path, { autoClose: false }).catch((error: NodeJS.ErrnoException) => {
    if (error.code === 'ENOENT') throw new UserError(`There is no file ${path}.`, 404);
    throw new UserError(
      'This is no project file: it cannot be read as an archive. Choose one that this program has exported.',
    );
  });
  try {
    const entries = new Map<string, yauzl.Entry>();
    // More entries than a project can name are none of its own.
    const most = projectFileLimits.originals + projectFileLimits.fonts + 1;
    if (zip.entryCount > most) throw damaged(`it has more than ${most} parts.`);
    try {
      for await (const entry of zip.eachEntry()) entries.set(entry.fileName, entry);
    } catch (error) {
      throw damaged(sentence(error));
    }
    const stream = async (name: string, bytes: number) => {
      const entry = entries.get(name);
      if (!entry) throw damaged(`${name} is missing.`);
      if (entry.uncompressedSize > bytes) throw damaged(`${name} is larger than it can be.`);
      return zip.openReadStreamPromise(entry).catch((error: unknown) => {
        throw damaged(`${name}: ${sentence(error)}`);
      });
    };
    if (!entries.has(textEntry)) {
      throw new UserError(
        `This is no project file: it has no ${textEntry}. Choose one that this program has exported.`,
      );
    }
    const parts: Buffer[] = [];
    try {
      for await (const part of await stream(textEntry, projectFileLimits.text)) parts.push(part);
    } catch (error) {
      throw error instanceof UserError ? error : damaged(sentence(error));
    }
    return {
      file: readText(Buffer.concat(parts).toString('utf8')),
      async extract(entry, to, { sha256, bytes }) {
        const hash = createHash('sha256');
        const hashing = new Transform({
          transform(chunk: Buffer, _, done) {
            hash.update(chunk);
            done(null, chunk);
          },
        });
        const source = await stream(entry, bytes);
        await pipeline(source, hashing, createWriteStream(to)).catch((error: NodeJS.ErrnoException) => {
          // A disk that is full is not the file's fault.
          throw error.syscall ? error : damaged(`${entry}: ${sentence(error)}`);
        });
        if (hash.digest('hex') !== sha256) throw damaged(`${entry} does not have the bytes that its name says.`);
      },
      close: () => zip.close(),
    };
  } catch (error) {
    zip.close();
    throw error;
  }
}

/** @throws UserError where a text is no project */
function readText(text: string): ProjectFile {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    throw damaged(`${textEntry} is no JSON.`);
  }
  if (!isAllStorable(value)) throw damaged('a text in it holds a character that cannot be stored.');
  const version = typeof value === 'object' && value !== null && 'projectFile' in value ? value.projectFile : null;
  if (version !== 1) {
    throw new UserError(
      `This project file is of version ${String(version)} of its format; this program reads version 1. Open it with the program that made it.`,
    );
  }
  const read = ProjectFileSchema.safeParse(value);
  if (read.success) return read.data;
  const [issue] = read.error.issues;
  throw damaged(`${issue?.path.join('.') ?? textEntry}: ${issue?.message ?? 'not as it was written.'}`);
}
