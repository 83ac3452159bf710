import { type Door, DoorSchema, SignedInSchema } from '@inkwell/core/model';
import type { z } from 'zod';
import { type Answer, formOf } from './client.ts';

/** A browser in which somebody uses the program: it keeps its cookie, and shows what only pages of the program know. */
export class Browser {
  cookie: string | null = null;
  /** The header by which the cookie was given. */
  given: string | null = null;
  private pageToken: string | null = null;

  /** @param headers of every request, such as those of a proxy */
  constructor(
    public address: string,
    private readonly headers: Record<string, string> = {},
  ) {}

  async ask(method: string, path: string, body?: unknown, headers: Record<string, string> = {}): Promise<Answer> {
    const json = { 'Content-Type': 'application/json', ...headers };
    return body === undefined
      ? this.send(method, path, null, headers)
      : this.send(method, path, JSON.stringify(body), json);
  }

  /** Sends one file, as a form. */
  sendFile(path: string, data: Buffer, fileName: string): Promise<Answer> {
    return this.send('POST', path, formOf(data, fileName));
  }

  async bytes(path: string): Promise<Buffer> {
    const response = await this.fetch('GET', path, null);
    if (!response.ok) throw new Error(`${path} answered ${response.status}.`);
    return Buffer.from(await response.arrayBuffer());
  }

  private async send(
    method: string,
    path: string,
    body: string | FormData | null,
    headers: Record<string, string> = {},
  ): Promise<Answer> {
    const response = await this.fetch(method, path, body, headers);
    const [given] = response.headers.getSetCookie();
    if (given !== undefined) {
      this.given = given;
      this.cookie = given.split(';')[0] ?? null;
    }
    const text = await response.text();
    return { status: response.status, body: text === '' ? null : JSON.parse(text) };
  }

  private fetch(
    method: string,
    path: string,
    body: string | FormData | null,
    headers: Record<string, string> = {},
  ): Promise<Response> {
    return fetch(`${this.address}/api/v1${path}`, {
      method,
      headers: {
        'Sec-Fetch-Site': 'same-origin',
        ...(this.cookie === null ? {} : { Cookie: this.cookie }),
        ...(this.pageToken === null ? {} : { 'X-Inkwell-Page': this.pageToken }),
        ...this.headers,
        ...headers,
      },
      body,
    });
  }

  private come(door: Door): Door {
    this.pageToken = door.pageToken;
    return door;
  }

  /** Follows the link of an invitation. @throws where the account is not made */
  async accept(link: string, name: string, password: string, email?: string): Promise<Door> {
    const secret = new URL(link).hash.slice(1);
    const { body } = await this.ask('POST', '/door/accept', { secret, name, password, ...(email ? { email } : {}) });
    return this.come(DoorSchema.parse(body));
  }

  /** @returns what was answered; the browser is signed in where that says so */
  async signIn(email: string, password: string, code?: string): Promise<Answer> {
    const answer = await this.ask('POST', '/door/sign-in', { email, password, ...(code ? { code } : {}) });
    const came = SignedInSchema.safeParse(answer.body);
    if (came.success && came.data.state === 'in') this.come(came.data.door);
    return answer;
  }

  /** Asks and reads the answer. @throws where it is another */
  async read<Schema extends z.ZodType>(schema: Schema, path: string): Promise<z.output<Schema>> {
    return schema.parse((await this.ask('GET', path)).body);
  }

  /** Who the program says is signed in here; null where it is nobody. */
  async person(): Promise<Door['person']> {
    return (await this.door()).person;
  }

  /** What the program says of who is here. */
  async door(): Promise<Door> {
    return this.come(await this.read(DoorSchema, '/door'));
  }
}
