import { z } from 'zod';
import { DimensionsSchema } from './book/rules.ts';

/** What every answer of a stand-in begins with, so that nobody takes it for a network. */
export const standInNotice = 'This is a simulated network for trying deliveries. Nothing is published anywhere.';

const Told = z.object({ standIn: z.literal(true), notice: z.literal(standInNotice) });

/** Why a network does not do what it is asked. */
export const NetworkRefusalCodeSchema = z.enum([
  'wrong token',
  'too many requests',
  'unknown place',
  'unreadable request',
  'no such post',
  'already published',
  'out of order',
  'other content',
  'too many files',
  'too few files',
  'unreadable picture',
  'format',
  'animated',
  'colour model',
  'alpha',
  'dimensions',
  'ratio',
  'too heavy',
  'broken',
]);
export type NetworkRefusalCode = z.infer<typeof NetworkRefusalCodeSchema>;

/** A refusal, in the network's own words, with numbers where it tells them. */
export const NetworkRefusalSchema = Told.extend({
  error: z.object({
    code: NetworkRefusalCodeSchema,
    message: z.string(),
    allowed: z.string().optional(),
    measured: z.string().optional(),
    /** The most bytes that are taken, where weight is the reason. */
    limitBytes: z.int().positive().optional(),
    /** The most files that a post takes, where their number is the reason. */
    mostFiles: z.int().positive().optional(),
  }),
});
export type NetworkRefusal = z.infer<typeof NetworkRefusalSchema>;

/** A picture that a network has made of an uploaded one. */
export const RenditionSchema = DimensionsSchema.extend({
  bytes: z.int().positive(),
  format: z.enum(['jpeg', 'webp']),
});
export type Rendition = z.infer<typeof RenditionSchema>;

export const NetworkFileSchema = z.object({
  /** In the order of uploading, from 1. */
  number: z.int().positive(),
  /** Of what was uploaded. */
  sha256: z.string(),
  altText: z.string(),
  /** What it was turned into. */
  kept: RenditionSchema,
  /** What is shown of it, by the width in CSS pixels at which it is. */
  shown: z.array(RenditionSchema.extend({ shownWidth: z.int().positive() })),
});
export type NetworkFile = z.infer<typeof NetworkFileSchema>;

export const NetworkPostSchema = Told.extend({
  id: z.uuid(),
  network: z.string(),
  place: z.string(),
  state: z.enum(['open', 'published']),
  /** How many files it will have. */
  pieces: z.int().positive(),
  columns: z.int().positive(),
  caption: z.string(),
  /** Counts up over all posts of an account: what was published later stands first on the profile page. */
  number: z.int().nullable(),
  files: z.array(NetworkFileSchema),
});
export type NetworkPost = z.infer<typeof NetworkPostSchema>;

export const AccountAnswerSchema = Told.extend({
  network: z.string(),
  name: z.string(),
  /** Published posts. */
  posts: z.int().min(0),
});
export type AccountAnswer = z.infer<typeof AccountAnswerSchema>;

/** What a post is begun with. */
export const NewPostSchema = z.object({
  /** The slug of a place of this network. */
  place: z.string().min(1).max(80),
  pieces: z.int().min(1).max(100).default(1),
  /** Pieces side by side. */
  columns: z.int().min(1).max(100).default(1),
  caption: z.string().max(5000).default(''),
});
export type NewPost = z.infer<typeof NewPostSchema>;

/** A simulated network that is running. */
export const NetworkStatusSchema = z.object({ slug: z.string(), name: z.string() });
export type NetworkStatus = z.infer<typeof NetworkStatusSchema>;
