import { createHash } from 'node:crypto';
import { DeliverySchema, DoorSchema, OpenProjectSchema, OriginalSchema, type Window } from '@inkwell/core/model';
import sharp from 'sharp';
import { z } from 'zod';
import type { Browser } from '../programs/browser.ts';
import { type Answer, until } from '../programs/client.ts';

/** A place whose files are made quickly: what is tried is what gets lost, not how heavy it is. */
const placeId = 'pipwire/profile-picture';
const NamedSchema = z.array(z.looseObject({ id: z.string(), name: z.string() }));
const MeasuredSchema = z.array(z.object({ frameId: z.string(), planHash: z.string() }));

/**
 * Somebody who works in a browser, and writes down what was answered with success. What got no answer may have been done or not; what was
 * refused was not.
 */
export class FaultsPerson {
  /** How much was answered with success, refused in words, and not answered. */
  readonly counts = { answered: 0, refused: 0, broken: 0 };
  /** What must never be: a loss, a 500, or something that is another person's. */
  readonly wrongs: string[] = [];
  private readonly originals = new Map<string, string>();
  private readonly deliveries = new Set<string>();
  private project: { id: string; frameId: string; version: number; window: Window } | null = null;
  /** The places of the window's centre of which one has to be there. */
  private possible: number[] = [];
  private step = 0;

  /** Whether so much time seems to go by that a session ends: then somebody signs in again. */
  mayBeSignedOut = false;

  /** @param workspaceId in which somebody works, and nobody of another @param seed makes the pictures others than everybody else's */
  constructor(
    private readonly browser: Browser,
    readonly name: string,
    private readonly email: string,
    private readonly password: string,
    private readonly workspaceId: string,
    private readonly seed: number,
  ) {}

  /** Where the program is now. */
  moveTo(address: string): void {
    this.browser.address = address;
  }

  /** Does one thing after another until it is over. */
  async work(isOver: () => boolean): Promise<void> {
    while (!isOver()) {
      await this.tried('look who is here', () => this.lookWho());
      if (!this.project) await this.tried('begin', () => this.begin());
      else {
        await this.tried('move a window', () => this.move());
        if (this.step % 3 === 0) await this.tried('bring a picture in', () => this.bringIn());
        if (this.step % 10 === 0) await this.tried('deliver', () => this.deliver());
      }
      this.step += 1;
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
  }

  /** Looks whether all that was answered with success is there, when everything is up again. @throws where something does not answer */
  async verify(): Promise<void> {
    await this.lookWho();
    for (const [id, sha256] of this.originals) {
      const data = await this.browser.bytes(this.at(`/originals/${id}/file`)).catch(() => Buffer.alloc(0));
      if (createHash('sha256').update(data).digest('hex') !== sha256) this.wrongs.push(`${this.name} lost a picture`);
    }
    for (const id of this.deliveries) {
      const { state, files, frameCount } = await until(
        async () => DeliverySchema.parse((await this.ask('GET', `/deliveries/${id}`)).body),
        (delivery) => delivery.state !== 'waiting' && delivery.state !== 'working',
        600,
      );
      if (state !== 'done' || files.length !== frameCount)
        this.wrongs.push(`${this.name} has a delivery that is ${state}`);
      else await this.browser.bytes(this.at(`/deliveries/${id}/archive`));
    }
    if (this.project) this.isWindowThere(await this.opened(this.project.id));
  }

  /** How much there is to lose. */
  get kept(): number {
    return this.originals.size + this.deliveries.size + (this.project ? 1 : 0);
  }

  private at = (path: string): string => `/in/${this.workspaceId}${path}`;

  private async ask(method: string, path: string, body?: unknown): Promise<Answer> {
    const answer = await this.browser.ask(method, this.at(path), body);
    if (answer.status === 500) this.wrongs.push(`${method} ${path} was answered with 500`);
    return answer;
  }

  private async tried(what: string, task: () => Promise<number>): Promise<void> {
    // A connection that breaks says nothing about what has become of what was asked.
    const status = await task().catch((error: unknown) => {
      if (error instanceof z.ZodError) this.wrongs.push(`${what}: an answer is not what it should be`);
      return null;
    });
    this.counts[status === null ? 'broken' : status < 300 ? 'answered' : 'refused'] += 1;
  }

  private async lookWho(): Promise<number> {
    const { status, body } = await this.browser.ask('GET', '/door');
    if (status !== 200) return status;
    const { person } = DoorSchema.parse(body);
    if (person === null && this.mayBeSignedOut) return (await this.browser.signIn(this.email, this.password)).status;
    if (person?.name !== this.name) this.wrongs.push(`${this.name} is ${person?.name ?? 'nobody'} here`);
    const projects = await this.ask('GET', '/projects');
    if (projects.status !== 200) return projects.status;
    for (const { name } of NamedSchema.parse(projects.body)) {
      if (!name.startsWith(this.workspaceId)) this.wrongs.push(`${this.name} sees ${name}`);
    }
    return 200;
  }

  private async picture(): Promise<Buffer> {
    const background = { r: this.seed * 40, g: this.step % 256, b: Math.floor(this.step / 256) };
    return sharp({ create: { width: 320, height: 240, channels: 3, background } })
      .png()
      .toBuffer();
  }

  private async bringIn(): Promise<number> {
    const data = await this.picture();
    const { status, body } = await this.browser.sendFile(this.at('/originals'), data, `${this.name} ${this.step}.png`);
    if (status === 500) this.wrongs.push('a picture was answered with 500');
    if (status !== 201) return status;
    const { id } = OriginalSchema.parse(body);
    this.originals.set(id, createHash('sha256').update(data).digest('hex'));
    return status;
  }

  private async begin(): Promise<number> {
    const status = await this.bringIn();
    const [originalId] = this.originals.keys();
    if (status !== 201 || originalId === undefined) return status;
    const made = await this.ask('POST', '/projects', { name: `${this.workspaceId} ${this.name}` });
    if (made.status !== 201) return made.status;
    const { id } = OpenProjectSchema.parse(made.body);
    await this.ask('POST', `/projects/${id}/originals`, { add: [originalId] });
    const framed = await this.ask('POST', `/projects/${id}/frames`, { add: [{ originalId, placeId }] });
    const frame = framed.status === 200 ? OpenProjectSchema.parse(framed.body).frames[0] : undefined;
    if (!frame) return framed.status;
    this.project = { id, frameId: frame.id, version: frame.version, window: frame.window };
    this.possible = [frame.window.centreX];
    return 200;
  }

  private async opened(id: string) {
    return OpenProjectSchema.parse((await this.ask('GET', `/projects/${id}`)).body);
  }

  private isWindowThere({ frames }: { frames: { id: string; version: number; window: Window }[] }) {
    const frame = frames.find((one) => one.id === this.project?.frameId);
    const centreX = frame?.window.centreX;
    if (centreX === undefined || !this.possible.some((one) => Math.abs(one - centreX) < 1e-6)) {
      this.wrongs.push(`${this.name} lost a window: ${centreX}, and not ${this.possible.join(' or ')}`);
    }
    return frame;
  }

  private async move(): Promise<number> {
    const { project } = this;
    if (!project) return 0;
    const { status: there, body } = await this.ask('GET', `/projects/${project.id}`);
    if (there !== 200) return there;
    const now = this.isWindowThere(OpenProjectSchema.parse(body));
    if (!now) return there;
    this.possible = [now.window.centreX];
    const span = 120;
    const centreX = 60 + ((this.step * 7.31) % 200);
    // Until it is answered both may be there.
    this.possible.push(centreX);
    const change = { window: { ...now.window, centreX, centreY: 120, span }, composed: false };
    const { status } = await this.ask('PATCH', `/frames/${project.frameId}`, { version: now.version, change });
    if (status === 200) this.possible = [centreX];
    else if (status < 500) this.possible.pop();
    return status;
  }

  private async deliver(): Promise<number> {
    const { project } = this;
    if (!project) return 0;
    const measured = await this.ask('GET', `/projects/${project.id}/measured`);
    if (measured.status !== 200) return measured.status;
    const seen = MeasuredSchema.parse(measured.body).map(({ frameId, planHash }) => ({ frameId, plan: planHash }));
    const { status, body } = await this.ask('POST', '/deliveries', { projectId: project.id, seen });
    if (status === 201 || status === 202) this.deliveries.add(DeliverySchema.parse(body).id);
    return status;
  }
}
