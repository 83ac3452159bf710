const key = 'inkwell-saved-by';

/** Who saves says so once: the browser keeps it. Empty where nobody has. */
export const savedByName = (): string => localStorage.getItem(key) ?? '';

/** A browser whose storage is full or switched off asks again the next time: that must not stop whoever saves. */
export function keepSavedBy(name: string): void {
  try {
    localStorage.setItem(key, name);
  } catch (error) {
    console.warn('The name is not kept for the next time.', error);
  }
}
