import { promisify } from 'node:util';
import { gunzip, gzip } from 'node:zlib';
import { Decrypter, Encrypter, generateX25519Identity, identityToRecipient } from 'age-encryption';
import { UnfitBackup } from './format.ts';

/** Bytes on their way into an entry, and out of one. What was done to them stands behind their name. */
export interface Sealing {
  seal(name: string, data: Buffer): Promise<{ name: string; data: Buffer }>;
}

export interface Opening {
  /** @returns the name as it was given */
  open(name: string, data: Buffer): Promise<{ name: string; data: Buffer }>;
}

/** A key of a backup: the identity that opens its entries. */
export type Key = string;

const compressed = '.gz';
const encrypted = '.age';
/** What is saved has to be worth the work of unpacking. */
const worth = 0.97;

const packed = promisify(gzip);
const unpacked = promisify(gunzip);

export const newKey = (): Promise<Key> => generateX25519Identity();

/** The key of a backup, closed by a passphrase. */
export async function closedKey(key: Key, passphrase: string): Promise<Buffer> {
  const encrypter = new Encrypter();
  encrypter.setPassphrase(passphrase);
  return Buffer.from(await encrypter.encrypt(key));
}

/** @throws UnfitBackup where the passphrase is another */
export async function openedKey(closed: Buffer, passphrase: string): Promise<Key> {
  const decrypter = new Decrypter();
  decrypter.addPassphrase(passphrase);
  return decrypter.decrypt(closed, 'text').catch((error: unknown) => {
    throw Object.assign(new UnfitBackup('The passphrase is not the one of this backup. Try again.'), { cause: error });
  });
}

/** @param key null where nothing is encrypted */
export async function sealingWith(key: Key | null): Promise<Sealing> {
  const recipient = key === null ? null : await identityToRecipient(key);
  return {
    async seal(name, data) {
      const small = await packed(data, { level: 4 });
      const isSmaller = small.length < data.length * worth;
      const plain = isSmaller ? { name: name + compressed, data: small } : { name, data };
      if (recipient === null) return plain;
      const encrypter = new Encrypter();
      encrypter.addRecipient(recipient);
      return { name: plain.name + encrypted, data: Buffer.from(await encrypter.encrypt(plain.data)) };
    },
  };
}

/** The name of an entry without what was done to its bytes. */
export const plainName = (name: string): string => name.replace(/(\.gz)?(\.age)?$/, '');

/** @param key null where nothing is encrypted */
export function openingWith(key: Key | null): Opening {
  const decrypter = new Decrypter();
  if (key !== null) decrypter.addIdentity(key);
  return {
    async open(sealed, bytes) {
      let [name, data] = [sealed, bytes];
      if (name.endsWith(encrypted)) {
        data = Buffer.from(await decrypter.decrypt(data));
        name = name.slice(0, -encrypted.length);
      }
      if (name.endsWith(compressed)) {
        data = await unpacked(data);
        name = name.slice(0, -compressed.length);
      }
      return { name, data };
    },
  };
}
