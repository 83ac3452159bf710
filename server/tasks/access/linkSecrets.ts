import { createHash, randomBytes } from 'node:crypto';

const bytesOfChance = 32;

/** What a link says behind its #, where no server on the way and no log sees it: with 256 bits of chance. */
export const newLinkSecret = (): string => randomBytes(bytesOfChance).toString('base64url');

/** What is kept of a secret that has so much chance that nothing slower is needed. */
export const secretHash = (secret: string): string => createHash('sha256').update(secret).digest('hex');
