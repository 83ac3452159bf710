import type { DoorServices, OpenInside, Services } from '../../services.ts';
import type { Resource } from '../contracts/resource.ts';
import { Streams } from '../sending/streams.ts';
import { backups } from './access/backups.ts';
import { door } from './access/door.ts';
import { doorEvents } from './access/doorEvents.ts';
import { invitations } from './access/invitations.ts';
import { mails } from './access/mails.ts';
import { me } from './access/me.ts';
import { people } from './access/people.ts';
import { shares } from './access/shares.ts';
import { tokens } from './access/tokens.ts';
import { workspaces } from './access/workspaces.ts';
import { placeSets } from './book/placeSets.ts';
import { sheetFindings } from './book/sheetFindings.ts';
import { sheets } from './book/sheets.ts';
import { specBook } from './book/specBook.ts';
import { finishes } from './library/finishes.ts';
import { fonts } from './library/fonts.ts';
import { letterStyles } from './library/letterStyles.ts';
import { originals } from './library/originals.ts';
import { webhooks } from './programs/webhooks.ts';
import { deliveries } from './projects/deliveries.ts';
import { dryRuns } from './projects/dryRuns.ts';
import { encodings } from './projects/encodings.ts';
import { frames } from './projects/frames.ts';
import { learnedUploads } from './projects/learnedUploads.ts';
import { networks } from './projects/networks.ts';
import { projects } from './projects/projects.ts';
import { history } from './together/history.ts';
import { reviews } from './together/reviews.ts';
import { together } from './together/together.ts';

/** All that is in a workspace, in the order in which it is described. */
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
  ].map((resource) => resource(services));

/** Who may come in, and do what; and what people hear of each other. */
export const doorResources = (services: DoorServices, inside: OpenInside, streams = new Streams()): Resource[] =>
  [
    together(streams),
    reviews(inside),
    history(inside),
    tokens,
    door,
    me,
    workspaces,
    people,
    shares,
    invitations,
    mails,
    doorEvents,
    backups,
  ].map((resource) => resource(services));
