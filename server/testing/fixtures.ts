import { join } from 'node:path';

/** Databases that released versions have written, as SQL. */
export const fixtureFolder = join(import.meta.dirname, 'fixtures');

/** Of the person in every one of them. */
export const fixturePassword = 'quilted lantern over marsh';
