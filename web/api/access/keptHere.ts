/** What all names begin with under which pages keep something in this browser. */
const prefix = 'inkwell';
const whoKey = `${prefix}.person`;
const whereKey = `${prefix}.workspace`;

/** Does something with what the browser keeps; one that keeps nothing forgets nothing. */
function trying<Value>(task: () => Value, otherwise: Value): Value {
  try {
    return task();
  } catch {
    return otherwise;
  }
}

/** Forgets what pages have kept in this browser: steps of undo, and changes that were not sent. */
export const forgetKept = (): void =>
  trying(() => {
    for (const key of Object.keys(localStorage).filter((one) => one.startsWith(prefix))) localStorage.removeItem(key);
  }, undefined);

/**
 * Keeps for somebody from now on. What was kept for somebody else is forgotten.
 *
 * @returns whether there was somebody else
 */
export const keepFor = (personId: string): boolean =>
  trying(() => {
    const before = localStorage.getItem(whoKey);
    const isOther = before !== null && before !== personId;
    if (isOther) forgetKept();
    localStorage.setItem(whoKey, personId);
    return isOther;
  }, false);

/** Notes the workspace that somebody is in, so that they come to it the next time. */
export const keepWorkspace = (id: string): void => trying(() => localStorage.setItem(whereKey, id), undefined);

/** The workspace that somebody was in last; null where that is not known. */
export const lastWorkspace = (): string | null => trying(() => localStorage.getItem(whereKey), null);
