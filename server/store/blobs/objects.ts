import type { Readable } from 'node:stream';
import type { BlobPlace } from '../schema/index.ts';

/** A store of bytes beside the database, by names that never come to mean other bytes. */
export interface ObjectStore {
  put(name: string, body: Buffer | Readable, bytes: number): Promise<void>;
  /** The bytes of an object from one of them on; null where there is no such object. */
  get(name: string, from: number): Promise<Readable | null>;
  /** Does nothing where there is none. */
  remove(name: string): Promise<void>;
}

/** The object store does not answer: what was asked of it can be asked again. */
export class ObjectsAway extends Error {
  constructor(cause: unknown) {
    super('The store of the files does not answer.', { cause });
  }
}

interface KnownObjects {
  store: ObjectStore;
  /** Whether new bytes go there; those that lie there already are read in any case. */
  takesNew: boolean;
}

let known: KnownObjects | null = null;

/** Names the object store of this process, or none: one for all, as the bytes of a database lie where they lie, whoever asks. */
export function nameObjects(named: KnownObjects | null): void {
  known = named;
}

/** @throws Error where this process was told of none */
export function objects(): ObjectStore {
  if (known) return known.store;
  throw new Error(
    'Bytes of this database lie in an S3 store that this program was not told of. Start it with INKWELL_S3_ENDPOINT and the settings that go with it.',
  );
}

/** Where new bytes go. */
export const placeOfNew = (): BlobPlace => (known?.takesNew ? 's3' : 'database');
