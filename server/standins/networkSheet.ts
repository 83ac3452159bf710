import { readdirSync, readFileSync } from 'node:fs';
import {
  AfterUploadSchema,
  NetworkRefusalCodeSchema,
  PlaceFieldsSchema,
  PlaceSchema,
  SlugSchema,
  type SpecSheet,
} from '@inkwell/core/model';
import { z } from 'zod';
import { shippedSheets } from './shippedSheets.ts';

/** What a network lets in, beside what each of its places asks for. */
const GateSchema = z.strictObject({
  /** Exactly the place's dimensions, or any whose sides lie between two lengths, in pixels. */
  dimensions: z.union([z.literal('exact'), z.strictObject({ least: z.int(), most: z.int() })]).default('exact'),
  /** How far a ratio may be from the place's, as a share of it; null where any is taken, and cut from the middle. */
  ratioTolerance: z.number().min(0).nullable().default(null),
  /** As image libraries name them. */
  colourModels: z.array(z.enum(['srgb', 'b-w', 'cmyk', 'rgb16', 'grey16'])).default(['srgb', 'b-w']),
  alpha: z.boolean().default(true),
});

/** How a network behaves as a service. */
const MannersSchema = z.strictObject({
  /** Requests that are answered in a number of seconds; more are told to wait. */
  requests: z.strictObject({ most: z.int().positive(), perSeconds: z.number().positive() }),
  /** One upload in so many is answered 500; 0 for none. */
  failsOnceIn: z.int().min(0).default(0),
  /** The connection of one upload in so many breaks: before anything was kept, or with nothing said of it. 0 for none. */
  dropsOnceIn: z.int().min(0).default(0),
  /** How long an upload takes at least. */
  slowMs: z.int().min(0).default(0),
});

/** A network as a file says it is: what its places have otherwise than the spec book's sheet that it is like. */
export const NetworkDescriptionSchema = z.strictObject({
  like: SlugSchema,
  /** Of a network that is like another one. */
  slug: SlugSchema.optional(),
  name: z.string().min(1).max(40).optional(),
  afterUpload: AfterUploadSchema,
  gate: GateSchema,
  manners: MannersSchema,
  /** How it says no. */
  words: z.partialRecord(NetworkRefusalCodeSchema, z.string().min(1)),
  /** Only what is otherwise there than in the spec book. */
  places: z.record(SlugSchema, z.partialRecord(PlaceFieldsSchema.keyof(), z.unknown())),
});

/** A simulated network as it really is, which the spec book may not know. */
export interface NetworkSheet extends Omit<z.infer<typeof NetworkDescriptionSchema>, 'like' | 'places'> {
  slug: string;
  name: string;
  places: SpecSheet['places'];
}

/**
 * A network from its file and the sheet that it is like.
 *
 * @throws where the file is not as the schema says, or names a sheet or a place that is not there
 */
export function networkOf(file: unknown, sheets: readonly SpecSheet[]): NetworkSheet {
  const { like, places: others, ...read } = NetworkDescriptionSchema.parse(file);
  const sheet = sheets.find(({ slug }) => slug === like);
  if (!sheet) throw new Error(`No sheet is called ${like}.`);
  const unknown = Object.keys(others).find((slug) => !sheet.places.some((place) => place.slug === slug));
  if (unknown) throw new Error(`${sheet.name} has no place ${unknown}.`);
  const places = sheet.places.map((place) => PlaceSchema.parse({ ...place, ...others[place.slug] }));
  return { ...read, slug: read.slug ?? sheet.slug, name: read.name ?? sheet.name, places };
}

/** The networks that ship with the program, and those of another folder, as they really are. @throws where a file is wrong, with its name */
export function networkSheets(further: string | null = null): NetworkSheet[] {
  const sheets = shippedSheets();
  const folders = [new URL('./networks/', import.meta.url), ...(further === null ? [] : [pathUrl(further)])];
  return folders.flatMap((folder) =>
    readdirSync(folder)
      .filter((name) => name.endsWith('.json'))
      .sort()
      .map((name) => {
        try {
          return networkOf(JSON.parse(readFileSync(new URL(name, folder), 'utf8')), sheets);
        } catch (error) {
          const why = error instanceof z.ZodError ? z.prettifyError(error) : String(error);
          throw new Error(`The network in ${name} cannot be read: ${why}`, { cause: error });
        }
      }),
  );
}

const pathUrl = (folder: string) => new URL(`file://${folder.replace(/\/?$/, '/')}`);
