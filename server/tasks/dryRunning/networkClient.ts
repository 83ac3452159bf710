import {
  type NetworkPost,
  NetworkPostSchema,
  type NetworkRefusal,
  NetworkRefusalSchema,
  type NewPost,
} from '@inkwell/core/model';
import type { NetworkAccount } from '../../networkAccounts.ts';

/** How long an answer is waited for. */
const answerMs = 20_000;
/** A connection that breaks is tried again at once, so often. */
const triesAtOnce = 3;
/** A picture that comes back has at most so many bytes. */
const mostBytes = 64_000_000;

/** A network does not do what it was asked, and says why. */
export class NetworkRefused extends Error {
  constructor(readonly refusal: NetworkRefusal) {
    super(refusal.error.message);
  }
}

/** A network cannot be asked just now: it is busy and says for how long, or it cannot be reached, or is broken. */
export class NetworkAway extends Error {
  constructor(
    message: string,
    /** When it is worth asking again; null where nobody has said. */
    readonly retryMs: number | null,
  ) {
    super(message);
  }
}

interface Asked {
  headers?: Record<string, string>;
  body?: string | Uint8Array<ArrayBuffer>;
}

/**
 * Speaks to one network over HTTP. Everything that changes something there may be asked again: posts have keys, files have numbers,
 * and what is published is published once.
 */
export class NetworkClient {
  constructor(
    private readonly account: NetworkAccount,
    private readonly timeoutMs = answerMs,
  ) {}

  /** Begins a post, or finds the one that was begun under this key. */
  begin(key: string, post: NewPost): Promise<NetworkPost> {
    const headers = { 'content-type': 'application/json', 'idempotency-key': key };
    return this.post('POST', '/posts', { headers, body: JSON.stringify(post) });
  }

  /** Uploads the next file of a post. */
  upload(post: Pick<NetworkPost, 'id'>, number: number, data: Buffer, altText: string): Promise<NetworkPost> {
    const headers = { 'content-type': 'application/octet-stream', 'x-alternative-text': encodeURIComponent(altText) };
    return this.post('PUT', `/posts/${post.id}/files/${number}`, { headers, body: new Uint8Array(data) });
  }

  publish(post: Pick<NetworkPost, 'id'>): Promise<NetworkPost> {
    return this.post('POST', `/posts/${post.id}/publish`);
  }

  /** Deletes a post. One that is not there any more is deleted. */
  async delete(post: Pick<NetworkPost, 'id'>): Promise<void> {
    try {
      await this.ask('DELETE', `/posts/${post.id}`);
    } catch (error) {
      if (!(error instanceof NetworkRefused && error.refusal.error.code === 'no such post')) throw error;
    }
  }

  /** Deletes everything that was posted. */
  async empty(): Promise<void> {
    await this.ask('DELETE', '/posts');
  }

  /** What a file was turned into. */
  kept = (post: Pick<NetworkPost, 'id'>, number: number) => this.ask('GET', `/posts/${post.id}/files/${number}/kept`);

  /** What is shown of a file at a width. */
  shown = (post: Pick<NetworkPost, 'id'>, number: number, width: number) =>
    this.ask('GET', `/posts/${post.id}/files/${number}/shown/${width}`);

  /** The post as the network's page shows it at a width. */
  screen = (post: Pick<NetworkPost, 'id'>, width: number) => this.ask('GET', `/posts/${post.id}/screen/${width}`);

  private async post(method: string, path: string, asked: Asked = {}): Promise<NetworkPost> {
    const { name } = this.account;
    const answer = NetworkPostSchema.safeParse(jsonOf(await this.ask(method, path, asked)));
    if (!answer.success) throw new NetworkAway(`${name} answers in a way that is not understood.`, null);
    return answer.data;
  }

  /** @throws NetworkRefused, NetworkAway */
  private async ask(method: string, path: string, asked: Asked = {}): Promise<Buffer> {
    for (let attempt = 1; ; attempt += 1) {
      try {
        return await this.once(method, path, asked);
      } catch (error) {
        if (error instanceof NetworkRefused || error instanceof NetworkAway) throw error;
        if (attempt < triesAtOnce) continue;
        throw new NetworkAway(`${this.account.name} cannot be reached.`, null);
      }
    }
  }

  private async once(method: string, path: string, { headers = {}, body }: Asked): Promise<Buffer> {
    const { address, token, name } = this.account;
    const response = await fetch(`${address}${path}`, {
      method,
      headers: { authorization: `Bearer ${token}`, ...headers },
      signal: AbortSignal.timeout(this.timeoutMs),
      redirect: 'error',
      ...(body === undefined ? {} : { body }),
    });
    const data = await bounded(response);
    if (response.ok) return data;
    if (response.status === 429) {
      const seconds = Number(response.headers.get('retry-after'));
      throw new NetworkAway(`${name} is busy.`, Number.isFinite(seconds) && seconds > 0 ? seconds * 1000 : null);
    }
    const refusal = NetworkRefusalSchema.safeParse(jsonOf(data));
    if (response.status >= 500 || !refusal.success) throw new NetworkAway(`${name} answers ${response.status}.`, null);
    throw new NetworkRefused(refusal.data);
  }
}

function jsonOf(data: Buffer): unknown {
  try {
    return JSON.parse(data.toString('utf8'));
  } catch {
    return null;
  }
}

/** The body of an answer. @throws where it is larger than any picture */
async function bounded(response: Response): Promise<Buffer> {
  const chunks: Uint8Array[] = [];
  const reader = response.body?.getReader();
  for (let bytes = 0; reader; ) {
    const { done, value } = await reader.read();
    if (done) break;
    bytes += value.byteLength;
    if (bytes > mostBytes) throw new Error('The answer is too large.');
    chunks.push(value);
  }
  return Buffer.concat(chunks);
}
