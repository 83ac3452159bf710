import type { z } from 'zod';

/** What the address of this page begins with where it names a workspace; empty where it names none. A page stays in its workspace. */
export const pageBase = /^\/in\/[\w-]+/.exec(window.location.pathname)?.[0] ?? '';

/** Where the API of this page's workspace is. */
export const api = `/api/v1${pageBase}`;

/**
 * An answer that says no, with a sentence for the person. Status 0 means that the server did not answer at all, 503 that its
 * database does not.
 */
export class ApiError extends Error {
  constructor(
    message: string,
    readonly status: number,
    readonly details: Record<string, unknown> = {},
  ) {
    super(message);
  }

  get offline(): boolean {
    return this.status === 0 || this.status === 503;
  }
}

export const notConnected =
  'The program does not answer. It may have been stopped. Start it again, and this page continues.';

/** By which a page says where somebody is, again and again: nothing is changed by it. */
export const presencePath = '/together/presence';

let pageToken: string | null = null;

/** What a page shows with all that it asks from now on; null where nobody is signed in. */
export const showPageToken = (token: string | null): void => {
  pageToken = token;
};

let whenOut: () => void = () => undefined;

/** Hears whenever something was refused because nobody is signed in any more. */
export const hearWhenOut = (hear: () => void): void => {
  whenOut = hear;
};

/** Tells of an answer by its status, where requests are sent by hand. */
export const noteStatus = (status: number): void => {
  if (status === 401) whenOut();
};

/** Headers of every request that is sent by hand. */
export const pageHeaders = (): Record<string, string> => (pageToken === null ? {} : { 'X-Inkwell-Page': pageToken });

/** How something is asked. */
interface Asked {
  method?: 'GET' | 'POST' | 'PATCH' | 'DELETE';
  body?: unknown;
  /** Where something else than a session lets in. */
  headers?: Record<string, string>;
}

/** Asks the API and checks that the answer is what the domain's schema says. @throws ApiError */
export async function ask<Schema extends z.ZodType>(
  schema: Schema,
  path: string,
  options: Asked = {},
): Promise<z.infer<Schema>> {
  const response = await send(path, options);
  return schema.parse(await response.json());
}

/** Sends one file, as a form. @throws ApiError */
export async function sendFile<Schema extends z.ZodType>(
  schema: Schema,
  path: string,
  file: File,
): Promise<z.infer<Schema>> {
  const form = new FormData();
  form.append('file', file, file.name);
  const response = await answered(path, { method: 'POST', body: form });
  return schema.parse(await response.json());
}

/** The same where nothing is answered. */
export async function tell(path: string, options: Asked & { method: 'POST' | 'PATCH' | 'DELETE' }): Promise<void> {
  await send(path, options);
}

/** What came of a save: done, or refused because the row was changed elsewhere, with what it is now. */
export type Saved<Row, Current = Row> = { done: Row } | { elsewhere: Current };

/** Saves a change made on top of `version`. @throws ApiError for everything but a conflict */
export const save = <Schema extends z.ZodType>(
  schema: Schema,
  path: string,
  version: number,
  change: unknown,
): Promise<Saved<z.infer<Schema>>> => saveOver(schema, schema, path, version, change);

/** The same where what it is now is told as something else. */
export async function saveOver<Schema extends z.ZodType, Current extends z.ZodType>(
  schema: Schema,
  elsewhere: Current,
  path: string,
  version: number,
  change: unknown,
): Promise<Saved<z.infer<Schema>, z.infer<Current>>> {
  try {
    return { done: await ask(schema, path, { method: 'PATCH', body: { version, change } }) };
  } catch (error) {
    const isConflict = error instanceof ApiError && error.status === 409;
    const current = isConflict ? elsewhere.safeParse(error.details.current) : null;
    if (current?.success) return { elsewhere: current.data };
    throw error;
  }
}

/** Asks for a file. @throws ApiError */
export const askFile = async (path: string, options: Asked = {}): Promise<Blob> => (await send(path, options)).blob();

function send(path: string, { method = 'GET', body, headers = {} }: Asked): Promise<Response> {
  if (body === undefined) return answered(path, { method, headers });
  const json = { ...headers, 'Content-Type': 'application/json' };
  return answered(path, { method, headers: json, body: JSON.stringify(body) });
}

let changing = 0;
let lastChange = Number.NEGATIVE_INFINITY;

/** Whether this page has been changing something within the last moments, or still is. */
export const isChanging = (withinMs: number): boolean => changing > 0 || performance.now() - lastChange < withinMs;

/** Notes how long something is being changed. */
async function noted<Answer>(isChange: boolean, asked: Promise<Answer>): Promise<Answer> {
  if (!isChange) return asked;
  changing += 1;
  try {
    return await asked;
  } finally {
    changing -= 1;
    lastChange = performance.now();
  }
}

async function answered(path: string, request: RequestInit & { headers?: Record<string, string> }): Promise<Response> {
  const headers = { ...request.headers, ...pageHeaders() };
  const asked = fetch(`${api}${path}`, { ...request, headers }).catch(() => {
    throw new ApiError(notConnected, 0);
  });
  const response = await noted(request.method !== 'GET' && path !== presencePath, asked);
  noteStatus(response.status);
  if (response.ok) return response;
  const said: unknown = await response.json().catch(() => null);
  const details = typeof said === 'object' && said !== null ? { ...said } : {};
  const message =
    'message' in details && typeof details.message === 'string'
      ? details.message
      : `The program answered ${response.status}.`;
  throw new ApiError(message, response.status, details);
}

/** What to tell a person about any failure. */
export function sentenceOf(error: unknown): string {
  if (error instanceof ApiError) return error.message;
  return 'The answer of the program could not be understood. Reload the page; if it happens again, look into the log.';
}
