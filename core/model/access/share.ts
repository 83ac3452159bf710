import { z } from 'zod';
import { PersonSchema } from './person.ts';
import { WorkspaceSchema } from './workspace.ts';

/** What of the machine is shared out. */
export const shareKinds = ['bytes', 'pixels', 'jobs', 'uploads', 'requests'] as const;
export type ShareKind = (typeof shareKinds)[number];

/** The least and the most that a share can be. */
export const shareBounds: Record<ShareKind, { least: number; most: number }> = {
  bytes: { least: 1_000_000, most: 1_000_000_000_000_000 },
  pixels: { least: 1_000_000, most: 1_000_000_000_000 },
  jobs: { least: 1, most: 10_000_000 },
  uploads: { least: 1, most: 1_000_000 },
  requests: { least: 60, most: 1_000_000 },
};

const oneSchema = (kind: ShareKind) => {
  const { least, most } = shareBounds[kind];
  const error = `A share of ${kind} is a whole number from ${least.toLocaleString('en')} to ${most.toLocaleString('en')}, or nothing where it is as much as there is.`;
  return z.int(error).min(least, error).max(most, error).nullable();
};

/** How much somebody may use, or a workspace. Null is as much as there is. */
export const ShareSchema = z.object({
  /** Of originals and delivered files that are kept. */
  bytes: oneSchema('bytes'),
  /** In work at a time. */
  pixels: oneSchema('pixels'),
  /** That wait or are being done at a time. */
  jobs: oneSchema('jobs'),
  /** In an hour. */
  uploads: oneSchema('uploads'),
  /** In a minute. */
  requests: oneSchema('requests'),
});
export type Share = z.infer<typeof ShareSchema>;

/** As much as there is. */
export const wholeShare: Share = { bytes: null, pixels: null, jobs: null, uploads: null, requests: null };

/** How much of each is used at a moment. */
export const UseSchema = z.object({
  bytes: z.int(),
  pixels: z.int(),
  jobs: z.int(),
  uploads: z.int(),
  requests: z.int(),
});
export type Use = z.infer<typeof UseSchema>;

export const ShareOfSchema = z.object({ share: ShareSchema, used: UseSchema });
export type ShareOf = z.infer<typeof ShareOfSchema>;

/** What whoever asks may use. */
export const OwnSharesSchema = z.object({
  /** Null where there are no accounts. */
  person: ShareOfSchema.nullable(),
  workspace: ShareOfSchema,
});
export type OwnShares = z.infer<typeof OwnSharesSchema>;

/** What everybody in a workspace may use; and all workspaces, for who looks after them. */
export const AllSharesSchema = z.object({
  people: z.array(ShareOfSchema.extend({ of: PersonSchema.pick({ id: true, name: true }) })),
  workspaces: z.array(ShareOfSchema.extend({ of: WorkspaceSchema.pick({ id: true, name: true }) })),
});
export type AllShares = z.infer<typeof AllSharesSchema>;

const plain = (amount: number) => amount.toLocaleString('en');

function bytesWords(amount: number): string {
  if (amount >= 1e9) return `${(amount / 1e9).toLocaleString('en', { maximumFractionDigits: 2 })} GB`;
  return `${(amount / 1e6).toLocaleString('en', { maximumFractionDigits: amount >= 1e8 ? 0 : 1 })} MB`;
}

interface ShareWords {
  name: string;
  /** What it counts. */
  about: string;
  /** An amount of it, where its name stands beside it. */
  amount: (amount: number) => string;
  /** An amount of it in a sentence. */
  said: (amount: number) => string;
}

const inTime = (one: string, many: string, time: string) => (amount: number) =>
  `${plain(amount)} ${amount === 1 ? one : many} ${time}`;
const millions = (amount: number) => `${plain(Math.round(amount / 1e6))} million`;

/** What each kind is called, and how an amount of it is said. */
export const shareWords: Record<ShareKind, ShareWords> = {
  bytes: {
    name: 'Bytes',
    about: 'Originals and delivered files',
    amount: bytesWords,
    said: (amount) => `${bytesWords(amount)} of originals and delivered files`,
  },
  pixels: {
    name: 'Pixels in work',
    about: 'Of pictures that are being worked on',
    amount: millions,
    said: (amount) => `${millions(amount)} pixels in work at a time`,
  },
  jobs: {
    name: 'Jobs',
    about: 'What was asked for and is not done',
    amount: plain,
    said: inTime('job', 'jobs', 'at a time'),
  },
  uploads: {
    name: 'Uploads',
    about: 'In the last hour',
    amount: plain,
    said: inTime('upload', 'uploads', 'in an hour'),
  },
  requests: {
    name: 'Requests',
    about: 'In the last minute',
    amount: plain,
    said: inTime('request', 'requests', 'in a minute'),
  },
};

/** From this part of a share on it is shown that it is nearly used. */
const near = 0.8;

/** The kinds of which a share is nearly used, or is. */
export const nearlyUsed = ({ share, used }: ShareOf): ShareKind[] =>
  shareKinds.filter((kind) => {
    const most = share[kind];
    return most !== null && used[kind] >= near * most;
  });
