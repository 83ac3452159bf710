import { createServer } from 'node:http';
import { metricsText, metricsType, pixelMetrics } from '../running/metrics.ts';
import type { Worker } from './worker.ts';

/**
 * Tells at a port of this machine how a worker is: at /health whether it is connected, at /metrics what it has done.
 *
 * @throws Error where the port is taken
 */
export async function tellOfWorker(worker: Worker, port: number): Promise<{ stop(): Promise<void> }> {
  const metrics = pixelMetrics(worker);
  const server = createServer((request, response) => {
    if (request.url === '/health') {
      response.writeHead(worker.isAtWork ? 200 : 503, { 'Content-Type': 'application/json' });
      response.end(JSON.stringify({ atWork: worker.isAtWork }));
      return;
    }
    if (request.url !== '/metrics') {
      response.writeHead(404).end();
      return;
    }
    metricsText([metrics]).then(
      (text) => response.writeHead(200, { 'Content-Type': metricsType }).end(text),
      () => response.writeHead(503).end(),
    );
  });
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, '127.0.0.1', resolve);
  });
  return {
    async stop() {
      server.closeAllConnections();
      await new Promise((closed) => server.close(closed));
    },
  };
}
