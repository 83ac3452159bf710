import type { Services } from '../../services.ts';
import type { Resource } from '../resource.ts';
import { deliveries } from './deliveries.ts';
import { dryRuns } from './dryRuns.ts';
import { encodings } from './encodings.ts';
import { finishes } from './finishes.ts';
import { fonts } from './fonts.ts';
import { frames } from './frames.ts';
import { learnedUploads } from './learnedUploads.ts';
import { letterStyles } from './letterStyles.ts';
import { networks } from './networks.ts';
import { originals } from './originals.ts';
import { placeSets } from './placeSets.ts';
import { projects } from './projects.ts';
import { sheetFindings } from './sheetFindings.ts';
import { sheets } from './sheets.ts';
import { specBook } from './specBook.ts';
import { tokens } from './tokens.ts';
import { webhooks } from './webhooks.ts';

/** All that the API is about, in the order in which it is described. */
export const resources = (services: Services): Resource[] =>
  [
    originals,
    projects,
    frames,
    encodings,
    deliveries,
    dryRuns,
    networks,
    specBook,
    sheets,
    sheetFindings,
    placeSets,
    finishes,
    letterStyles,
    fonts,
    learnedUploads,
    webhooks,
    tokens,
  ].map((resource) => resource(services));
