/** One of several files that have one budget together. */
export interface Sharing {
  /** The qualities that are allowed, ascending, at least one. */
  qualities: readonly number[];
  bytes: (quality: number) => Promise<number>;
  /** How good the file is; grows with its quality. */
  worth: (quality: number) => Promise<number>;
}

/** The quality of each file, as its place in the list of its qualities. */
type Steps = readonly number[];

/** Levels that are no further apart than this share of the whole range need not be told apart by halving. */
const fineness = 1 / 512;

/**
 * The qualities at which several files fit one budget together, so that the worst of them is as good as possible: the same answer as
 * trying every combination, where more quality means more bytes and more worth. What is left of the budget then makes the others better,
 * the worse ones first.
 *
 * Let every file take the lowest quality that is worth as much as some level: the highest level at which all fit is the answer. It is come
 * near to by halving; from there on the worst file goes up a step as long as all still fit.
 *
 * @returns null where all files do not fit at their lowest quality
 */
export async function sharedOut(files: readonly Sharing[], budget: number): Promise<number[] | null> {
  const lowest: Steps = files.map(() => 0);
  if ((await sumOf(files, lowest)) > budget) return null;
  const fitting = await nearBest(files, lowest, budget);
  const best = await worstUp(files, fitting, budget);
  const filled = await restUp(files, best, budget);
  return files.map((file, at) => qualityAt(file, filled[at]));
}

const qualityAt = ({ qualities }: Sharing, step = 0): number => qualities[step] ?? qualities.at(-1) ?? 0;
const lastOf = ({ qualities }: Sharing): number => qualities.length - 1;
const bytesAt = (file: Sharing, step?: number) => file.bytes(qualityAt(file, step));
const worthAt = (file: Sharing, step?: number) => file.worth(qualityAt(file, step));

async function sumOf(files: readonly Sharing[], steps: Steps): Promise<number> {
  const bytes = await Promise.all(files.map((file, at) => bytesAt(file, steps[at])));
  return bytes.reduce((sum, one) => sum + one, 0);
}

/** What fits, near the highest level at which all do. */
async function nearBest(files: readonly Sharing[], lowest: Steps, budget: number): Promise<Steps> {
  const worths = (steps: Steps) => Promise.all(files.map((file, at) => worthAt(file, steps[at])));
  let low = { level: Math.min(...(await worths(lowest))), steps: lowest };
  const tops = files.map(lastOf);
  let high = { level: Math.min(...(await worths(tops))), steps: tops };
  const close = (high.level - low.level) * fineness;
  const whole = await stepsAt(files, high.level, low.steps, high.steps);
  if ((await sumOf(files, whole)) <= budget) return whole;
  high = { ...high, steps: whole };
  while (high.level - low.level > close && high.steps.some((step, at) => step - (low.steps[at] ?? 0) > 1)) {
    const level = (low.level + high.level) / 2;
    const steps = await stepsAt(files, level, low.steps, high.steps);
    if ((await sumOf(files, steps)) <= budget) low = { level, steps };
    else high = { level, steps };
  }
  return low.steps;
}

/** The lowest steps at which all files are worth a level, which is known of the steps `high`. */
const stepsAt = (files: readonly Sharing[], level: number, low: Steps, high: Steps): Promise<number[]> =>
  Promise.all(
    files.map(async (file, at) => {
      let [below, enough] = [(low[at] ?? 0) - 1, high[at] ?? 0];
      while (enough - below > 1) {
        const middle = Math.ceil((below + enough) / 2);
        if ((await worthAt(file, middle)) >= level) enough = middle;
        else below = middle;
      }
      return enough;
    }),
  );

/** The worst file goes up, step by step, as long as all fit. */
async function worstUp(files: readonly Sharing[], from: Steps, budget: number): Promise<Steps> {
  let steps = from;
  for (;;) {
    const worths = await Promise.all(files.map((file, at) => worthAt(file, steps[at])));
    const worst = worths.indexOf(Math.min(...worths));
    const next = steps.map((step, at) => (at === worst ? step + 1 : step));
    const [file] = files.slice(worst);
    if (!file || (next[worst] ?? 0) > lastOf(file) || (await sumOf(files, next)) > budget) return steps;
    steps = next;
  }
}

/** Each file goes up as far as its part of what is left allows, the worst first. */
async function restUp(files: readonly Sharing[], from: Steps, budget: number): Promise<Steps> {
  const steps = [...from];
  const worths = await Promise.all(files.map((file, at) => worthAt(file, from[at])));
  const order = files.map((_, at) => at).sort((a, b) => (worths[a] ?? 0) - (worths[b] ?? 0));
  for (const [done, at] of order.entries()) {
    const [file] = files.slice(at);
    if (!file) continue;
    const left = budget - (await sumOf(files, steps));
    const own = (await bytesAt(file, steps[at])) + left / (order.length - done);
    let [fits, tooMuch] = [steps[at] ?? 0, lastOf(file) + 1];
    while (tooMuch - fits > 1) {
      const middle = Math.floor((fits + tooMuch) / 2);
      if ((await bytesAt(file, middle)) <= own) fits = middle;
      else tooMuch = middle;
    }
    steps[at] = fits;
  }
  return steps;
}
