import { z } from 'zod';
import { ChromaSchema } from './weighing.ts';

/** How pixels are weighed where a network scales a picture: the names that image libraries use. */
const NetworkKernelSchema = z.enum(['nearest', 'linear', 'cubic', 'mitchell', 'lanczos2', 'lanczos3']);

/** What a network does to a picture after it has taken it: it is scaled down, and encoded again. */
export const AfterUploadSchema = z.object({
  /** Longer sides are scaled down to this, in pixels; shorter ones stay. */
  longEdge: z.int().min(16).max(20_000),
  kernel: NetworkKernelSchema.default('lanczos3'),
  format: z.enum(['jpeg', 'webp']).default('jpeg'),
  quality: z.int().min(1).max(100),
  chroma: ChromaSchema,
  /** Whether a profile is honoured: dropped without that, colours of a wide gamut come out pale. */
  colours: z.enum(['converted', 'profile dropped']).default('converted'),
});
export type AfterUpload = z.infer<typeof AfterUploadSchema>;
