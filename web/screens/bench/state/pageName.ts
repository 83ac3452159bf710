const key = 'inkwell.page';
let name: string | null = null;

/**
 * What tells this page from others: the same after a reload. While the page lives it is not in the storage, since a page that
 * is made as a copy of this one takes the storage with it.
 */
export function pageName(): string {
  if (name !== null) return name;
  const own = crypto.randomUUID();
  name = own;
  try {
    name = sessionStorage.getItem(key) ?? own;
    sessionStorage.removeItem(key);
    addEventListener('pagehide', () => sessionStorage.setItem(key, name ?? own));
    addEventListener('pageshow', () => sessionStorage.removeItem(key));
  } catch {
    // The browser refuses storage: then nothing outlives a reload anyway, and the bench says so.
  }
  return name;
}
