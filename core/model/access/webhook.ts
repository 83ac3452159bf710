import { z } from 'zod';

export const NewWebhookSchema = z.object({
  url: z
    .url({
      protocol: /^https?$/,
      error: 'The address of a webhook begins with http:// or https://, such as http://127.0.0.1:9000/delivered.',
    })
    .max(500, 'The address of a webhook can have at most 500 characters.'),
});
export type NewWebhook = z.infer<typeof NewWebhookSchema>;

/** What is told, by its type: a delivery is done, or somebody tries the webhook. */
export const CallTypeSchema = z.enum(['delivery.done', 'webhook.tried']);
export type CallType = z.infer<typeof CallTypeSchema>;

/** One thing that is told to a webhook. */
export const WebhookCallSchema = z.object({
  /** As the header `webhook-id` says it: the same however often it is sent. */
  id: z.uuid(),
  type: CallTypeSchema,
  state: z.enum(['waiting', 'arrived', 'given up']),
  tries: z.int().min(0),
  /** What came of the last try, in words. */
  said: z.string().nullable(),
  createdAt: z.iso.datetime(),
  lastTriedAt: z.iso.datetime().nullable(),
  /** When it is tried next; null where it is not. */
  nextTryAt: z.iso.datetime().nullable(),
});
export type WebhookCall = z.infer<typeof WebhookCallSchema>;

/** An address that hears when a delivery is done. */
export const WebhookSchema = z.object({
  id: z.uuid(),
  url: z.string(),
  createdAt: z.iso.datetime(),
  /** The newest calls, the last one first. */
  calls: z.array(WebhookCallSchema),
});
export type Webhook = z.infer<typeof WebhookSchema>;

/** A webhook that was just made, with the secret that its calls are signed by: it is told this once. */
export const MadeWebhookSchema = z.object({ webhook: WebhookSchema, secret: z.string() });
export type MadeWebhook = z.infer<typeof MadeWebhookSchema>;

/** What a call says, as the JSON of its body. */
export const CallBodySchema = z.object({
  type: CallTypeSchema,
  timestamp: z.iso.datetime(),
  data: z.object({
    delivery: z.uuid().nullable(),
    project: z.uuid().nullable(),
    projectName: z.string(),
    files: z.int().min(0),
    leftOut: z.int().min(0),
    /** Where the archive is, below the address of the program; null where nothing was delivered. */
    archive: z.string().nullable(),
  }),
});
export type CallBody = z.infer<typeof CallBodySchema>;
