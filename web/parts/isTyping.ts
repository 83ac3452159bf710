/** What letters go into: fields, but not the switches and boxes that are inputs as well. */
const fields = 'input:not([type="radio"], [type="checkbox"], [type="range"]), textarea, [role="combobox"]';

/** Whether a key is meant for a field. */
export const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && target.closest(fields) !== null;
