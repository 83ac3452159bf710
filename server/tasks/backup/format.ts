import { z } from 'zod';

/** What a backup begins with, so that others than this program can read it: docs/backup.md describes all of it. */
export const HeaderSchema = z.object({
  format: z.literal('Inkwell Frame backup'),
  version: z.literal(1),
  /** By which migration the schema of the rows is as it is. */
  schema: z.int(),
  isEncrypted: z.boolean(),
});
export type Header = z.infer<typeof HeaderSchema>;

export const TableSchema = z.object({ name: z.string(), columns: z.array(z.string()) });

/** What a backup ends with: one that has no end is not whole. */
export const EndSchema = z.object({
  takenAt: z.iso.datetime(),
  tables: z.array(z.object({ name: z.string(), sha256: z.string(), bytes: z.int() })),
  /** Every file that a row refers to. */
  blobs: z.array(z.object({ sha256: z.string(), bytes: z.int() })),
});
export type End = z.infer<typeof EndSchema>;

/** The names of the entries of the archive. */
export const names = {
  header: 'inkwell-backup.json',
  key: 'key.age',
  /** A piece of a file's bytes. @param index from 0 */
  blob: (sha256: string, index: number) => `blobs/${sha256}/${index}`,
  tables: 'tables.json',
  rows: (table: string, index: number) => `rows/${table}/${index}`,
  end: 'end.json',
};

/** A backup cannot be used. The message is a plain sentence: what is wrong, and what to do. */
export class UnfitBackup extends Error {}
