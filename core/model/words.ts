import { z } from 'zod';

/** Words that go with a picture; empty where there are none. */
export const WordsSchema = z.object({
  /** Who made it. */
  credit: z.string().trim().max(300, 'A credit can have at most 300 characters.'),
  copyright: z.string().trim().max(300, 'A copyright notice can have at most 300 characters.'),
  /** What is seen on it, for those who cannot see it. */
  altText: z.string().trim().max(2000, 'An alternative text can have at most 2,000 characters.'),
});
export type Words = z.infer<typeof WordsSchema>;

/** What a file says about where and with what it was taken. Goes into files only where a person asks for it. */
export const OriginSchema = z.object({
  /** Degrees, north and east positive. */
  position: z.object({ latitude: z.number().min(-90).max(90), longitude: z.number().min(-180).max(180) }).nullable(),
  /** Maker, model and serial numbers of camera and lens. */
  device: z
    .object({ make: z.string(), model: z.string(), serial: z.string(), lensSerial: z.string() })
    .partial()
    .nullable(),
});
export type Origin = z.infer<typeof OriginSchema>;

/** What is written into the files of a project beside their pixels. */
export const MetadataPolicySchema = z.object({
  /** Credit, copyright and alternative text. */
  words: z.boolean(),
  position: z.boolean(),
  device: z.boolean(),
  /** A small profile that says sRGB, for programs that would guess otherwise. */
  profile: z.boolean(),
});
export type MetadataPolicy = z.infer<typeof MetadataPolicySchema>;

export const keepNothing: MetadataPolicy = { words: false, position: false, device: false, profile: false };
