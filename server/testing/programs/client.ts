import { openAsBlob } from 'node:fs';
import { basename } from 'node:path';
import {
  type Delivery,
  DeliverySchema,
  type FrameSettings,
  isAllMeasured,
  type Measured,
  MeasuredSchema,
  type OpenProject,
  OpenProjectSchema,
  type Original,
  OriginalSchema,
  type Place,
  type Seen,
  SeenSchema,
  SpecSheetSchema,
} from '@inkwell/core/model';
import { z } from 'zod';

/** What was answered: the status and the parsed body. */
export interface Answer {
  status: number;
  body: unknown;
}

/** A file as forms send it. */
export function formOf(data: Buffer, fileName: string): FormData {
  const form = new FormData();
  form.append('file', new Blob([new Uint8Array(data)]), fileName);
  return form;
}

/** Talks to a running program as its interface does. */
export class Client {
  /** @param headers of every request, such as a token */
  constructor(
    readonly address: string,
    private readonly headers: Record<string, string> = {},
  ) {}

  async ask(method: string, path: string, body?: unknown): Promise<Answer> {
    const response = await fetch(`${this.address}/api/v1${path}`, {
      method,
      headers: { ...this.headers, ...(body === undefined ? {} : { 'Content-Type': 'application/json' }) },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    });
    const text = await response.text();
    return { status: response.status, body: text === '' ? null : JSON.parse(text) };
  }

  async bytes(path: string): Promise<Buffer> {
    const response = await fetch(`${this.address}/api/v1${path}`, { headers: this.headers });
    if (!response.ok) throw new Error(`${path} answered ${response.status}: ${await response.text()}`);
    return Buffer.from(await response.arrayBuffer());
  }

  upload(data: Buffer, fileName: string): Promise<Answer> {
    return this.sendFile('/originals', data, fileName);
  }

  /** Sends one file, as a form. */
  async sendFile(path: string, data: Buffer, fileName: string): Promise<Answer> {
    const response = await fetch(`${this.address}/api/v1${path}`, {
      method: 'POST',
      body: formOf(data, fileName),
      headers: this.headers,
    });
    return { status: response.status, body: await response.json() };
  }

  /** A file taken in from where it lies, however large it is. */
  async file(path: string): Promise<Original> {
    const form = new FormData();
    form.append('file', await openAsBlob(path), basename(path));
    const response = await fetch(`${this.address}/api/v1/originals`, {
      method: 'POST',
      body: form,
      headers: this.headers,
    });
    return OriginalSchema.parse(await response.json());
  }

  async original(data: Buffer, fileName: string): Promise<Original> {
    return OriginalSchema.parse((await this.upload(data, fileName)).body);
  }

  /** A new sheet of one's own. @returns the ids of its places */
  async sheet(name: string, places: readonly (Partial<Place> & { slug: string })[]): Promise<string[]> {
    const content = { name, kind: 'made up', checkedOn: '2026-11-02', places };
    const words = { savedBy: '', note: '' };
    const { slug } = SpecSheetSchema.parse((await this.ask('POST', '/sheets', { content, words })).body);
    return places.map((place) => `${slug}/${place.slug}`);
  }

  /** A new project with every given original in every given place. */
  project(name: string, originals: Original[], placeIds: string[]): Promise<OpenProject> {
    const add = originals.flatMap((original) => placeIds.map((placeId) => ({ originalId: original.id, placeId })));
    return this.projectOf(name, originals, add);
  }

  /** A new project with the given frames, as they are given or composed. */
  async projectOf(
    name: string,
    originals: Original[],
    add: { originalId: string; placeId: string; settings?: FrameSettings }[],
  ): Promise<OpenProject> {
    const { id } = OpenProjectSchema.parse((await this.ask('POST', '/projects', { name })).body);
    await this.ask('POST', `/projects/${id}/originals`, { add: originals.map((one) => one.id) });
    return OpenProjectSchema.parse((await this.ask('POST', `/projects/${id}/frames`, { add })).body);
  }

  async open(projectId: string): Promise<OpenProject> {
    return OpenProjectSchema.parse((await this.ask('GET', `/projects/${projectId}`)).body);
  }

  async projects(): Promise<{ id: string; name: string }[]> {
    const { body } = await this.ask('GET', '/projects');
    return z.array(z.object({ id: z.string(), name: z.string() })).parse(body);
  }

  /** What is known of the files of a project's frames; null where it is being measured. */
  async weights(projectId: string): Promise<Measured[]> {
    return z.array(MeasuredSchema).parse((await this.ask('GET', `/projects/${projectId}/measured`)).body);
  }

  /** Waits until everything about every frame of a project is measured. */
  measured(projectId: string): Promise<Measured[]> {
    return until(
      () => this.weights(projectId),
      (frames) => frames.every(isAllMeasured),
      600,
    );
  }

  /** Waits until all originals of a project were looked at, or could not be. */
  looked(projectId: string): Promise<Seen[]> {
    return until(
      async () => z.array(SeenSchema).parse((await this.ask('GET', `/projects/${projectId}/seen`)).body),
      (originals) => originals.every(({ analysis, failure }) => analysis !== null || failure !== null),
      600,
    );
  }

  /** The plans of a project's frames as they are now. */
  async seen(projectId: string): Promise<{ frameId: string; plan: string }[]> {
    return (await this.weights(projectId)).map(({ frameId, planHash }) => ({ frameId, plan: planHash }));
  }

  /** Asks for a delivery of all frames as they were seen, by default now. */
  async askDelivery(
    projectId: string,
    pattern?: string,
    seen: Awaited<ReturnType<Client['seen']>> | null = null,
  ): Promise<Answer> {
    return this.ask('POST', '/deliveries', {
      projectId,
      seen: seen ?? (await this.seen(projectId)),
      ...(pattern ? { pattern } : {}),
    });
  }

  /** Delivers a project and waits until that is over. */
  async deliver(projectId: string, pattern?: string): Promise<Delivery> {
    return this.delivered(await this.askDelivery(projectId, pattern));
  }

  /** The delivery that was asked for, when it is over. @param everyMs how often one looks */
  async delivered({ body }: Answer, everyMs?: number): Promise<Delivery> {
    const { id } = DeliverySchema.parse(body);
    return until(
      async () => DeliverySchema.parse((await this.ask('GET', `/deliveries/${id}`)).body),
      ({ state }) => state !== 'waiting' && state !== 'working',
      150,
      everyMs,
    );
  }
}

/** Asks again and again until `ready` says yes. @throws after `seconds` */
export async function until<Value>(
  ask: () => Promise<Value>,
  ready: (value: Value) => boolean,
  seconds = 150,
  everyMs = 100,
): Promise<Value> {
  for (let left = (seconds * 1000) / everyMs; left > 0; left -= 1) {
    const value = await ask();
    if (ready(value)) return value;
    await new Promise((resolve) => setTimeout(resolve, everyMs));
  }
  throw new Error(`Nothing came within ${seconds} seconds.`);
}
