import {
  type Aim,
  aimNames,
  bytesOf,
  type ImageFormat,
  ImageFormatSchema,
  type Limit,
  namedAims,
  WeightUnitSchema,
} from '@inkwell/core/model';
import { InvalidArgumentError } from 'commander';

/** What the bytes are spent on, by its name. */
export function aimNamed(name: string): Aim {
  const known = aimNames.find((one) => one === name);
  if (!known) throw new InvalidArgumentError(`There are ${aimNames.join(', ')}.`);
  return namedAims[known];
}

/** The parts between commas, without empty ones. */
export const listed = (text: string): string[] =>
  text
    .split(',')
    .map((one) => one.trim())
    .filter((one) => one !== '');

/** Formats by their names, each once. */
export function formatsNamed(text: string): ImageFormat[] {
  const formats = listed(text).map((one) => ImageFormatSchema.safeParse(one.toLowerCase().replace(/^jpg$/, 'jpeg')));
  if (formats.length === 0 || formats.some(({ success }) => !success)) {
    throw new InvalidArgumentError(`There are ${ImageFormatSchema.options.join(', ')}, with commas between.`);
  }
  return [...new Set(formats.flatMap(({ data }) => data ?? []))];
}

/** A weight as people write it: `500 kB`, `8MB`, `1.5 MiB`. */
export function limitNamed(text: string): Limit {
  const [, number = '', written = ''] = /^\s*(\d+(?:\.\d+)?)\s*([a-z]+)\s*$/i.exec(text) ?? [];
  const unit = WeightUnitSchema.options.find((one) => one.toLowerCase() === written.toLowerCase());
  const bytes = unit ? bytesOf(Number(number), unit) : 0;
  if (!unit || bytes < 1 || bytes >= 2 ** 31) {
    throw new InvalidArgumentError('A limit is a number with kB, MB or MiB, below 2 GB: "500 kB", 8MB, 1.5MiB.');
  }
  return { bytes, unit };
}

/** Collects `name=text`, each name once. */
export function wordsNamed(text: string, before: ReadonlyMap<string, string>): ReadonlyMap<string, string> {
  const at = text.indexOf('=');
  if (at < 1) throw new InvalidArgumentError('Words are given as name=text, such as title="Kites over the dunes".');
  return new Map(before).set(text.slice(0, at).trim().toLowerCase(), text.slice(at + 1));
}

/** A whole number from 1 on. */
export function counted(text: string): number {
  if (!/^[1-9]\d{0,3}$/.test(text)) throw new InvalidArgumentError('It is a whole number from 1 on.');
  return Number(text);
}
