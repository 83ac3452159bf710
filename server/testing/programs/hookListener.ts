import { once } from 'node:events';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';

/** The address of a webhook: it keeps what it hears, and answers what it is told to. */
export class HookListener {
  readonly heard: { headers: Record<string, string>; body: string }[] = [];
  /** The statuses of the next answers; 204 after them. */
  readonly answers: number[] = [];

  private constructor(private readonly server: Server) {
    server.on('request', (request, response) => {
      let body = '';
      request.on('data', (chunk: Buffer) => {
        body += chunk;
      });
      request.on('end', () => {
        this.heard.push({ headers: request.headers as Record<string, string>, body });
        // Where an answer points is to be nobody's business.
        response.writeHead(this.answers.shift() ?? 204, { Location: '/elsewhere' }).end();
      });
    });
  }

  static async start(): Promise<HookListener> {
    const server = createServer().listen(0, '127.0.0.1');
    const listener = new HookListener(server);
    await once(server, 'listening');
    return listener;
  }

  get url(): string {
    return `http://127.0.0.1:${(this.server.address() as AddressInfo).port}/delivered`;
  }

  stop(): void {
    this.server.closeAllConnections();
    this.server.close();
  }
}
