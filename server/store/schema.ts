import {
  asAbove,
  type Backing,
  type Composing,
  type Decided,
  type Delivery,
  type DetailKept,
  type DryRun,
  type DryRunOutcome,
  type FinishFigures,
  type FontFile,
  type FramePosting,
  type Hands,
  type ImageFormat,
  type KeepMark,
  keepNothing,
  type LeftOut,
  type Legibility,
  type Lettering,
  type LetterStyle,
  type ManifestFile,
  type Mark,
  type MeasuredFile,
  type MetadataPolicy,
  nothingSaid,
  type OpaqueBacking,
  type Origin,
  type Original,
  type OwnPlace,
  type PictureSource,
  type PieceOfWhole,
  type PlaceThen,
  type PostingWords,
  type ProjectPosting,
  plainWeighing,
  type Rewritten,
  type Ring,
  type SeamStep,
  type SheetChange,
  type SheetFinding,
  type Treatment,
  type Trim,
  type Weighing,
  type Weight,
  type Window,
  type Words,
} from '@inkwell/core/model';
import {
  bigint,
  boolean,
  customType,
  doublePrecision,
  index,
  integer,
  jsonb,
  pgSequence,
  pgTable,
  primaryKey,
  text,
  timestamp,
  unique,
  uuid,
} from 'drizzle-orm/pg-core';

const bytea = customType<{ data: Buffer }>({ dataType: () => 'bytea' });
const moment = (name: string) => timestamp(name, { withTimezone: true, mode: 'date' });
const bytes = (name: string) => bigint(name, { mode: 'number' });

/** One copy of every file, under the SHA-256 of its bytes. */
export const blobs = pgTable('blobs', {
  sha256: text('sha256').primaryKey(),
  bytes: bytes('bytes').notNull(),
  createdAt: moment('created_at').notNull().defaultNow(),
});

/** The bytes of a blob in pieces of at most 1 MiB, so that none has to be held in memory whole. */
export const blobChunks = pgTable(
  'blob_chunks',
  {
    sha256: text('sha256')
      .notNull()
      .references(() => blobs.sha256, { onDelete: 'cascade' }),
    index: integer('index').notNull(),
    data: bytea('data').notNull(),
  },
  (table) => [primaryKey({ columns: [table.sha256, table.index] })],
);

export const originals = pgTable(
  'originals',
  {
    id: uuid('id').primaryKey().defaultRandom(),
    name: text('name').notNull(),
    fileName: text('file_name').notNull(),
    sha256: text('sha256')
      .notNull()
      .references(() => blobs.sha256),
    bytes: bytes('bytes').notNull(),
    format: text('format').$type<Original['format']>().notNull(),
    width: integer('width').notNull(),
    height: integer('height').notNull(),
    hasAlpha: boolean('has_alpha').notNull(),
    page: integer('page').notNull().default(0),
    pages: integer('pages').notNull().default(1),
    words: jsonb('words').$type<Words>().notNull().default({ credit: '', copyright: '', altText: '' }),
    origin: jsonb('origin').$type<Origin>().notNull().default({ position: null, device: null }),
    marks: jsonb('marks').$type<Mark[]>().notNull().default([]),
    decided: jsonb('decided').$type<Decided[]>().notNull().default([]),
    trim: jsonb('trim').$type<Trim>(),
    finishId: text('finish_id'),
    blend: doublePrecision('blend'),
    /** How it was made of another drawing; null where it came as it is. */
    rewritten: jsonb('rewritten').$type<Rewritten>(),
    version: integer('version').notNull().default(1),
    createdAt: moment('created_at').notNull().defaultNow(),
    deletedAt: moment('deleted_at'),
  },
  (table) => [index('originals_sha256').on(table.sha256)],
);

/** What was seen in a page or frame of a file, by the newest version of the program that has looked at it. */
export const analyses = pgTable(
  'analyses',
  {
    sha256: text('sha256')
      .notNull()
      .references(() => blobs.sha256, { onDelete: 'cascade' }),
    page: integer('page').notNull(),
    version: integer('version').notNull(),
    /** Another version of the program may have put it there: `AnalysisSchema` reads it. */
    analysis: jsonb('analysis').$type<unknown>().notNull(),
    seenAt: moment('seen_at').notNull().defaultNow(),
  },
  (table) => [primaryKey({ columns: [table.sha256, table.page] })],
);

export const projects = pgTable('projects', {
  id: uuid('id').primaryKey().defaultRandom(),
  name: text('name').notNull(),
  finishId: text('finish_id').notNull().default('plain'),
  keeping: jsonb('keeping').$type<MetadataPolicy>().notNull().default(keepNothing),
  composing: text('composing').$type<Composing>().notNull().default('seen'),
  lettering: jsonb('lettering').$type<Lettering>().notNull().default([]),
  posting: jsonb('posting').$type<ProjectPosting>().notNull().default(nothingSaid),
  version: integer('version').notNull().default(1),
  createdAt: moment('created_at').notNull().defaultNow(),
  changedAt: moment('changed_at').notNull().defaultNow(),
  deletedAt: moment('deleted_at'),
});

export const projectOriginals = pgTable(
  'project_originals',
  {
    projectId: uuid('project_id')
      .notNull()
      .references(() => projects.id, { onDelete: 'cascade' }),
    originalId: uuid('original_id')
      .notNull()
      .references(() => originals.id, { onDelete: 'cascade' }),
    position: integer('position').notNull(),
  },
  (table) => [primaryKey({ columns: [table.projectId, table.originalId] })],
);

export const frames = pgTable(
  'frames',
  {
    id: uuid('id').primaryKey().defaultRandom(),
    projectId: uuid('project_id')
      .notNull()
      .references(() => projects.id, { onDelete: 'cascade' }),
    originalId: uuid('original_id')
      .notNull()
      .references(() => originals.id, { onDelete: 'cascade' }),
    placeId: text('place_id').notNull(),
    window: jsonb('window').$type<Window>().notNull(),
    composed: boolean('composed').notNull().default(false),
    backing: jsonb('backing').$type<Backing>(),
    ring: jsonb('ring').$type<Ring>(),
    cutOut: boolean('cut_out').notNull().default(false),
    flatten: text('flatten'),
    stretch: doublePrecision('stretch').notNull().default(1),
    grid: jsonb('grid').$type<{ columns: number; rows: number }>(),
    closing: jsonb('closing').$type<OpaqueBacking>(),
    bridged: boolean('bridged').notNull().default(false),
    sharedQuality: boolean('shared_quality').notNull().default(true),
    format: text('format').$type<ImageFormat>().notNull(),
    weighing: jsonb('weighing').$type<Weighing>().notNull().default(plainWeighing),
    height: integer('height'),
    finishId: text('finish_id'),
    blend: doublePrecision('blend'),
    hands: jsonb('hands').$type<Hands>().notNull().default({}),
    posting: jsonb('posting').$type<FramePosting>().notNull().default(asAbove),
    version: integer('version').notNull().default(1),
  },
  (table) => [unique('frames_one_per_place').on(table.projectId, table.originalId, table.placeId)],
);

/** Places that people made. They stay while a frame could need them, also after their project. */
export const ownPlaces = pgTable(
  'own_places',
  {
    id: uuid('id').primaryKey().defaultRandom(),
    /** The sheet that it is in: `own-…`, or `only-…` where it is meant for one project. */
    sheetSlug: text('sheet_slug').notNull(),
    sheetName: text('sheet_name').notNull(),
    projectId: uuid('project_id'),
    slug: text('slug').notNull(),
    place: jsonb('place').$type<OwnPlace>().notNull(),
    version: integer('version').notNull().default(1),
    changedAt: moment('changed_at').notNull().defaultNow(),
    createdAt: moment('created_at').notNull().defaultNow(),
    deletedAt: moment('deleted_at'),
  },
  (table) => [unique('own_places_slug').on(table.sheetSlug, table.slug)],
);

/** Finishes that people made; those that ship are part of the program. */
export const finishes = pgTable('finishes', {
  id: uuid('id').primaryKey().defaultRandom(),
  name: text('name').notNull(),
  description: text('description').notNull(),
  treatment: jsonb('treatment').$type<Treatment>().notNull(),
  version: integer('version').notNull().default(1),
  createdAt: moment('created_at').notNull().defaultNow(),
  deletedAt: moment('deleted_at'),
});

/** Styles of words that people made; those that ship are part of the program. */
export const letterStyles = pgTable('letter_styles', {
  id: uuid('id').primaryKey().defaultRandom(),
  name: text('name').notNull(),
  style: jsonb('style').$type<LetterStyle>().notNull(),
  createdAt: moment('created_at').notNull().defaultNow(),
  deletedAt: moment('deleted_at'),
});

/** Fonts of people's own, by what their file is. */
export const ownFonts = pgTable('own_fonts', {
  id: text('id').primaryKey(),
  name: text('name').notNull(),
  sha256: text('sha256')
    .notNull()
    .references(() => blobs.sha256),
  weight: jsonb('weight').$type<FontFile['weight']>().notNull(),
  width: jsonb('width').$type<FontFile['width']>().notNull(),
  createdAt: moment('created_at').notNull().defaultNow(),
  deletedAt: moment('deleted_at'),
});

/** What finishing has done to a frame, as it was measured, by plan. */
export const figures = pgTable('figures', {
  planHash: text('plan_hash').primaryKey(),
  figures: jsonb('figures').$type<FinishFigures>().notNull(),
  measuredAt: moment('measured_at').notNull().defaultNow(),
});

/** One row, whose number rises with every change of an own place or a finish: triggers see to that. See libraryVersion.ts. */
export const libraryVersions = pgTable('library_versions', {
  number: bigint('number', { mode: 'number' }).notNull(),
});

/** Full-size encodings that were measured, by plan. */
export const weights = pgTable('weights', {
  planHash: text('plan_hash').primaryKey(),
  weight: jsonb('weight').$type<Weight>().notNull(),
  measuredAt: moment('measured_at').notNull().defaultNow(),
});

/** What is left of marks at small sizes, as it was measured, by what it depends on. */
export const details = pgTable('details', {
  hash: text('hash').primaryKey(),
  kept: jsonb('kept').$type<DetailKept[]>().notNull(),
  measuredAt: moment('measured_at').notNull().defaultNow(),
});

/** How well words can be read where their file is shown, as it was measured, by what it depends on. */
export const legibilities = pgTable('legibilities', {
  hash: text('hash').primaryKey(),
  found: jsonb('found').$type<Legibility[]>().notNull(),
  measuredAt: moment('measured_at').notNull().defaultNow(),
});

/** A render plan in the database: another version of the program may have put it there. `readPlan` reads it. */
export type KeptPlan = unknown;

/** What there is to do. */
export type WorkTask =
  /** Encodes the files of a plan, measures them, and keeps both. */
  | {
      kind: 'plan';
      plan: KeptPlan /** Another way to make a frame's file: it shares the frame's pixels. */;
      isWay: boolean;
    }
  /** Looks at a page or frame of a file for what matters in it. */
  | { kind: 'analyse'; picture: PictureSource }
  /** Measures what is left of marks where the file is shown small. */
  | { kind: 'detail'; hash: string; plan: KeptPlan; marks: KeepMark[]; shownWidths: number[] }
  /** Measures how well the words of a plan's files can be read where they are shown. */
  | { kind: 'legibility'; hash: string; plan: KeptPlan; shownWidths: number[] }
  /** Puts the files of a plan into a delivery, at the positions that they have there. */
  | { kind: 'deliver'; deliveryId: string; planHash: string; positions: number[] }
  /** Uploads what a dry run has for one network, in its order; without a network, finds out what there is to upload. */
  | { kind: 'dry run'; dryRunId: string; network: string | null };

/** Where a mark lay in the picture of a frame when that was delivered. */
export interface MarkThen {
  name: string;
  isMust: boolean;
  rect: { left: number; top: number; width: number; height: number };
}

/** What one file of a delivery is to be, fixed when the delivery is asked for. */
export interface DeliveryItem {
  fileName: string;
  plan: KeptPlan;
  original: string;
  network: string;
  place: string;
  limit: { bytes: number; unit: 'kB' | 'MB' | 'MiB' };
  finish?: NonNullable<ManifestFile['finish']>;
  /** Which piece of the plan's picture it is, where that is cut. */
  piece?: PieceOfWhole;
  /** The place as it was, and what is said where it is posted; not noted by earlier versions. */
  placeThen?: PlaceThen;
  posting?: PostingWords;
  /** What of the picture matters, in pixels of the file or of the whole that it is cut from. */
  marks?: MarkThen[];
  /** What forbids it, in words: it is left out. */
  blocked?: string[];
}

export const deliveries = pgTable('deliveries', {
  id: uuid('id').primaryKey().defaultRandom(),
  /** No foreign key: a delivery outlives its project. */
  projectId: uuid('project_id').notNull(),
  projectName: text('project_name').notNull(),
  pattern: text('pattern').notNull(),
  state: text('state').$type<Delivery['state']>().notNull().default('waiting'),
  items: jsonb('items').$type<DeliveryItem[]>().notNull(),
  failure: text('failure'),
  createdAt: moment('created_at').notNull().defaultNow(),
});

export const deliveryFiles = pgTable(
  'delivery_files',
  {
    deliveryId: uuid('delivery_id')
      .notNull()
      .references(() => deliveries.id, { onDelete: 'cascade' }),
    position: integer('position').notNull(),
    /** Null where the file was left out. */
    sha256: text('sha256').references(() => blobs.sha256),
    file: jsonb('file').$type<ManifestFile>(),
    leftOut: jsonb('left_out').$type<LeftOut>(),
  },
  (table) => [
    primaryKey({ columns: [table.deliveryId, table.position] }),
    index('delivery_files_sha256').on(table.sha256),
  ],
);

/** Posts of a delivery that somebody has posted, each by the name of its first file. */
export const postedTicks = pgTable(
  'posted_ticks',
  {
    deliveryId: uuid('delivery_id')
      .notNull()
      .references(() => deliveries.id, { onDelete: 'cascade' }),
    post: text('post').notNull(),
    postedAt: moment('posted_at').notNull().defaultNow(),
  },
  (table) => [primaryKey({ columns: [table.deliveryId, table.post] })],
);

/** One file that a dry run uploads, fixed when the run begins. */
export interface DryRunItem {
  line: ManifestFile;
  /** Slugs: how the network is found, and what the place is called there. */
  network: string;
  place: string;
  /** The name of the first file of its post. */
  post: string;
  /** What it was drawn by, and what matters in it. */
  plan: KeptPlan;
  marks: MarkThen[];
}

/** Runs that upload files to the simulated networks. No foreign key to the project: a run outlives it, as its delivery does. */
export const dryRuns = pgTable('dry_runs', {
  id: uuid('id').primaryKey().defaultRandom(),
  projectId: uuid('project_id').notNull(),
  deliveryId: uuid('delivery_id').references(() => deliveries.id, { onDelete: 'cascade' }),
  state: text('state').$type<DryRun['state']>().notNull().default('waiting'),
  /** Empty until the delivery is done. */
  items: jsonb('items').$type<DryRunItem[]>().notNull().default([]),
  failure: text('failure'),
  createdAt: moment('created_at').notNull().defaultNow(),
});

/** What a dry run is waiting for at a network, and since when: it does not wait for ever. */
export const dryRunWaits = pgTable(
  'dry_run_waits',
  {
    dryRunId: uuid('dry_run_id')
      .notNull()
      .references(() => dryRuns.id, { onDelete: 'cascade' }),
    network: text('network').notNull(),
    why: text('why').notNull(),
    since: moment('since').notNull().defaultNow(),
  },
  (table) => [primaryKey({ columns: [table.dryRunId, table.network] })],
);

export const dryRunFiles = pgTable(
  'dry_run_files',
  {
    dryRunId: uuid('dry_run_id')
      .notNull()
      .references(() => dryRuns.id, { onDelete: 'cascade' }),
    position: integer('position').notNull(),
    outcome: jsonb('outcome').$type<DryRunOutcome>().notNull(),
  },
  (table) => [primaryKey({ columns: [table.dryRunId, table.position] })],
);

/** The pictures of a dry run: what it uploads where no delivery has it, and what came back. */
export const dryRunPictures = pgTable(
  'dry_run_pictures',
  {
    dryRunId: uuid('dry_run_id')
      .notNull()
      .references(() => dryRuns.id, { onDelete: 'cascade' }),
    sha256: text('sha256')
      .notNull()
      .references(() => blobs.sha256),
  },
  (table) => [
    primaryKey({ columns: [table.dryRunId, table.sha256] }),
    index('dry_run_pictures_sha256').on(table.sha256),
  ],
);

/** Differences between the spec book and what the networks really do, as dry runs have measured them: one for each number. */
export const sheetFindings = pgTable(
  'sheet_findings',
  {
    id: uuid('id').primaryKey().defaultRandom(),
    network: text('network').notNull(),
    /** Null where all of the network is meant. */
    place: text('place'),
    field: text('field').$type<SheetChange['field']>().notNull(),
    change: jsonb('change').$type<SheetChange>().notNull(),
    said: text('said').notNull(),
    measured: text('measured').notNull(),
    measuredAt: moment('measured_at').notNull().defaultNow(),
    dryRunId: uuid('dry_run_id').references(() => dryRuns.id, { onDelete: 'set null' }),
    state: text('state').$type<SheetFinding['state']>().notNull().default('open'),
    taken: jsonb('taken').$type<SheetChange>(),
    version: integer('version').notNull().default(1),
  },
  (table) => [unique('sheet_findings_one').on(table.network, table.place, table.field).nullsNotDistinct()],
);

/** The finished files of plans as they were encoded while they were measured, so that a delivery encodes nothing. Bounded. */
export const encodings = pgTable(
  'encodings',
  {
    planHash: text('plan_hash').notNull(),
    /** In reading order, from 0. */
    piece: integer('piece').notNull(),
    sha256: text('sha256')
      .notNull()
      .references(() => blobs.sha256),
    bytes: bytes('bytes').notNull(),
    /** What it was found to be when it was opened again. The bytes that are kept are those: their SHA-256 is checked. */
    opened: jsonb('opened').$type<MeasuredFile>().notNull(),
    seams: jsonb('seams').$type<SeamStep[]>().notNull(),
    usedAt: moment('used_at').notNull().defaultNow(),
  },
  (table) => [
    primaryKey({ columns: [table.planHash, table.piece] }),
    index('encodings_sha256').on(table.sha256),
    index('encodings_used_at').on(table.usedAt),
  ],
);

/** Work that takes longer than a request should: one row for each, gone when it is done. See store/work.ts. */
export const work = pgTable(
  'work',
  {
    id: bigint('id', { mode: 'number' }).primaryKey().generatedAlwaysAsIdentity(),
    /** What it is about. Asked for twice, it is one. */
    key: text('key').notNull().unique(),
    task: jsonb('task').$type<WorkTask>().notNull(),
    priority: integer('priority').notNull(),
    /** Among those of one priority the highest comes first. */
    rank: doublePrecision('rank').notNull(),
    /** The key of other work that has to be over first. */
    after: text('after'),
    deliveryId: uuid('delivery_id').references(() => deliveries.id, { onDelete: 'cascade' }),
    /** The frames that it is measured for; null where it is done whatever has become of them. */
    wantedBy: uuid('wanted_by').array(),
    state: text('state').$type<'waiting' | 'working' | 'failed'>().notNull().default('waiting'),
    attempts: integer('attempts').notNull().default(0),
    /** The number of the worker that has it. */
    worker: integer('worker'),
    notBefore: moment('not_before').notNull().defaultNow(),
    /** Why the last attempt failed, in words. */
    failure: text('failure'),
  },
  (table) => [
    index('work_next').on(table.state, table.priority, table.rank),
    index('work_delivery').on(table.deliveryId),
  ],
);

/** Every worker that starts takes the next number. */
export const workers = pgSequence('workers', { maxValue: 2_147_483_647, cycle: true });

/** Things that are done once in the life of a database, such as filling in the demo. */
export const milestones = pgTable('milestones', {
  name: text('name').primaryKey(),
  reachedAt: moment('reached_at').notNull().defaultNow(),
});
