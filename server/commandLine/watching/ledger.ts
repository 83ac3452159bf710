import { mkdir, open, readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { z } from 'zod';

/** What was done into a folder, a line each: the project that pictures come into, or a picture that was framed. */
const LineSchema = z.union([
  z.object({ project: z.uuid(), madeOf: z.string() }),
  z.object({ sha256: z.string(), file: z.string(), folder: z.string(), at: z.iso.datetime() }),
]);

/** The project of a watched folder, and what it was begun with: its set of places and its words, in a line. */
export interface WatchedProject {
  project: string;
  madeOf: string;
}

/** A picture that was framed: its bytes, its file, and the folder with what came of it. */
export interface Done {
  sha256: string;
  file: string;
  folder: string;
}

const name = 'watched.jsonl';

/** What was done into a folder, kept beside that: it outlives the program, and nothing is done twice. */
export class Ledger {
  private constructor(
    private readonly path: string,
    private last: WatchedProject | null,
    private readonly done: Map<string, Done>,
  ) {}

  /** Opens the ledger of a folder; a line that was broken off by a crash counts as not written. */
  static async open(folder: string): Promise<Ledger> {
    await mkdir(folder, { recursive: true });
    const path = join(folder, name);
    const text = await readFile(path, 'utf8').catch((error: NodeJS.ErrnoException) => {
      if (error.code === 'ENOENT') return '';
      throw error;
    });
    let project: WatchedProject | null = null;
    const done = new Map<string, Done>();
    for (const line of text.split('\n')) {
      const read = lineIn(line);
      if (!read) continue;
      if ('project' in read) project = read;
      else done.set(read.sha256, read);
    }
    return new Ledger(path, project, done);
  }

  get project(): WatchedProject | null {
    return this.last;
  }

  doneOf(sha256: string): Done | null {
    return this.done.get(sha256) ?? null;
  }

  async begin(project: WatchedProject): Promise<void> {
    await this.write(project);
    this.last = project;
  }

  async finish(done: Done): Promise<void> {
    await this.write({ ...done, at: new Date().toISOString() });
    this.done.set(done.sha256, done);
  }

  /** Writes a line for good. What a crash has broken off before it stays a line of its own. */
  private async write(line: object): Promise<void> {
    const file = await open(this.path, 'a');
    try {
      await file.write(`\n${JSON.stringify(line)}\n`);
      await file.sync();
    } finally {
      await file.close();
    }
  }
}

function lineIn(line: string): z.infer<typeof LineSchema> | null {
  try {
    return LineSchema.safeParse(JSON.parse(line)).data ?? null;
  } catch {
    return null;
  }
}
