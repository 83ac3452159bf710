const key = 'inkwell-saved-by';

/** Who saves says so once: the browser keeps it. Empty where nobody has. */
export const savedByName = (): string => localStorage.getItem(key) ?? '';
export const keepSavedBy = (name: string): void => localStorage.setItem(key, name);
