import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import type { KeepMark } from '../model/index.ts';
import { plainPlan } from './derived/derivedPlan.ts';
import type { RenderPlan } from './renderPlan.ts';

/** JSON with the keys of every object in order, so that equal values have equal text. What is undefined counts as missing. */
function canonicalJson(value: unknown): string {
  if (Array.isArray(value)) return `[${value.map(canonicalJson).join(',')}]`;
  if (value === null || typeof value !== 'object') return JSON.stringify(value);
  // A list of thousands of frames is hashed at once: this loop takes half the time of a chain of entries.
  let text = '';
  const items = value as Record<string, unknown>;
  for (const key of Object.keys(items).sort()) {
    const item = items[key];
    if (item !== undefined) text += `${text === '' ? '' : ','}${JSON.stringify(key)}:${canonicalJson(item)}`;
  }
  return `{${text}}`;
}

const hashOf = (value: unknown): string => bytesToHex(sha256(utf8ToBytes(canonicalJson(value))));

/** SHA-256 over the plan, 64 hexadecimal digits: the key of proofs and weights. */
export const planHash = (plan: RenderPlan): string => hashOf(plan);

/** That, and the same of the frame left plain. */
export function planHashes(plan: RenderPlan): { planHash: string; plainHash: string } {
  const own = planHash(plan);
  return { planHash: own, plainHash: plan.finish ? planHash(plainPlan(plan)) : own };
}

/** The same over all that the detail of marks at small sizes depends on. */
export function detailHash(plan: RenderPlan, marks: readonly KeepMark[], shownWidths: readonly number[]): string {
  const regions = marks.map(({ id, left, top, width, height, shape, kind }) => ({
    id,
    left,
    top,
    width,
    height,
    shape,
    kind,
  }));
  return hashOf({ plan, regions, shownWidths });
}

/** The same over all that the legibility of words depends on. @param hash of the plan */
export const legibilityHash = (hash: string, shownWidths: readonly number[]): string => hashOf({ hash, shownWidths });
