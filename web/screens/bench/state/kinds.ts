import {
  type Finish,
  type FinishSettings,
  FinishSettingsSchema,
  type Frame,
  type FrameSettings,
  FrameSettingsSchema,
  type Original,
  type OriginalSettings,
  OriginalSettingsSchema,
  type Project,
  type ProjectSettings,
  ProjectSettingsSchema,
} from '@inkwell/core/model';
import type { z } from 'zod';
import { remembering } from '../../../parts/many/remembering.ts';
import type { Phase, Row } from './rowMachine.ts';

export type ById<Value> = Record<string, Value>;

/** What is edited on a bench: its frames, what is set on their originals and for the project, and finishes. */
interface Kinds {
  frames: { row: Frame; settings: FrameSettings };
  originals: { row: Original; settings: OriginalSettings };
  projects: {
    row: Pick<Project, 'id' | 'version'> & ProjectSettings;
    settings: ProjectSettings;
  };
  finishes: { row: Finish; settings: FinishSettings };
}
export type Kind = keyof Kinds;
/** Frames come last: they follow from all the rest. */
export const kinds = ['finishes', 'projects', 'originals', 'frames'] as const satisfies readonly Kind[];

export type RowOf<K extends Kind> = Kinds[K]['row'];
export type SettingsOf<K extends Kind> = Kinds[K]['settings'];
export type AllSettings = { [K in Kind]: ById<SettingsOf<K>> };
export type AllRows = { [K in Kind]: ById<RowOf<K>> };
export type AllPhases = { [K in Kind]: ById<Phase<RowOf<K>, SettingsOf<K>>> };
/** Something for some rows of every kind. */
export type ForRows<Value> = Record<Kind, ById<Value>>;
/** What the server has of what is edited. A kind that has not been asked for yet is left out. */
export type Known = { [K in Kind]?: readonly RowOf<K>[] | undefined };

/** There are thousands of frames, and each is asked time and again while others are saved. */
const ofFrame = remembering<Frame, FrameSettings>();

/** The part of a row that a person sets. */
const settingsOf: { [K in Kind]: (row: RowOf<K>) => SettingsOf<K> } = {
  frames: (row) =>
    ofFrame(row, [], () => {
      const { id: _, projectId: __, originalId: ___, placeId: ____, version: _____, ...settings } = row;
      return settings;
    }),
  originals: ({ marks, decided, trim, finishId, blend, words }) => ({ marks, decided, trim, finishId, blend, words }),
  projects: ({ finishId, keeping, composing, lettering, posting, pins, pattern, usualPlaces, usualAim }) => ({
    finishId,
    keeping,
    composing,
    lettering,
    posting,
    pins,
    pattern,
    usualPlaces,
    usualAim,
  }),
  finishes: ({ name, description, treatment }) => ({ name, description, treatment }),
};

/** The same where the kind is only known while the program runs: a row is always read as one of its own kind. */
export const looseSettingsOf = settingsOf as Record<Kind, (row: Row) => object>;

const schemas: Record<Kind, z.ZodObject> = {
  frames: FrameSettingsSchema,
  originals: OriginalSettingsSchema,
  projects: ProjectSettingsSchema,
  finishes: FinishSettingsSchema,
};

const isPlain = (value: unknown): value is object =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/**
 * Settings with some of them replaced by what was kept, perhaps by an earlier version of the program: what that did not know
 * yet stays as it is now, and what cannot be read is left aside.
 */
export function restored(kind: Kind, now: object, kept: object): object {
  const known = new Map(Object.entries(now));
  let settings = now;
  for (const [name, value] of Object.entries(kept)) {
    if (!known.has(name)) continue;
    const there = known.get(name);
    const ways = isPlain(value) && isPlain(there) ? [value, { ...there, ...value }] : [value];
    const read = ways
      .map((way) => schemas[kind].safeParse({ ...settings, [name]: way }))
      .find(({ success }) => success);
    if (read?.data) settings = read.data;
  }
  return settings;
}
