/**
 * What Node.js is told where it starts a module of the program in a process or a thread of its own: nothing in the bundle, and in front of a source
 * to translate it.
 */
export const loaderOf = (module: URL): string[] => (module.pathname.endsWith('.ts') ? ['--import', 'tsx'] : []);
