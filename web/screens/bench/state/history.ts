import equal from 'fast-deep-equal';
import type { ById, ForRows, Kind } from './kinds.ts';

/** What a step back, or forward, sets: of each row only what the step changes. */
export type Step = ForRows<object>;

/** The steps that can be gone back and forward, the next at the end of each list. */
export interface History {
  past: readonly Step[];
  future: readonly Step[];
}

const mostSteps = 300;

export const emptyStep = (): Step => ({ frames: {}, originals: {}, projects: {}, finishes: {} });

/** A step for rows of one kind. */
export const stepOf = (kind: Kind, rows: ById<object>): Step => ({ ...emptyStep(), [kind]: rows });

/** Of the settings before a change, those that it changed. */
export function changedFrom(before: object, after: object): object {
  const now = new Map(Object.entries(after));
  return Object.fromEntries(Object.entries(before).filter(([name, value]) => !equal(value, now.get(name))));
}

/** A change was made: `step` takes it back, and nothing is left to be done again. */
export const recorded = ({ past }: History, step: Step): History => ({
  past: [...past, step].slice(-mostSteps),
  future: [],
});
