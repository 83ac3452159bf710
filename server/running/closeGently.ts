import type { Server } from 'node:http';

/** How often one looks whether a connection has nothing to do any more. */
const lookMs = 50;

/** Takes no more connections, and ends those that are there as soon as what they are at is answered; after a while, all of them. */
export async function closeGently(server: Server, withinMs: number): Promise<void> {
  const closed = new Promise((resolve) => server.close(resolve));
  const looking = setInterval(() => server.closeIdleConnections(), lookMs);
  const late = setTimeout(() => server.closeAllConnections(), withinMs);
  server.closeIdleConnections();
  await closed;
  clearInterval(looking);
  clearTimeout(late);
}
