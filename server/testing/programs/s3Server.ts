import { type ChildProcess, spawn } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync } from 'node:fs';
import { join } from 'node:path';

/** A small S3 server, a process of its own, that can be ended and started again with what it holds. */
export class S3Server {
  private child: ChildProcess | null = null;
  private port = 0;
  private readonly directory: string;

  /** @param folder that holds what it holds */
  constructor(folder: string) {
    this.directory = mkdtempSync(join(folder, 's3-'));
  }

  async start(): Promise<void> {
    const script = join(import.meta.dirname, 'runS3Server.ts');
    const child = spawn(process.execPath, ['--import', 'tsx', script, this.directory, String(this.port)], {
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    this.child = child;
    const endToo = () => child.kill();
    process.once('exit', endToo);
    child.once('exit', () => process.off('exit', endToo));
    this.port = await new Promise((resolve, reject) => {
      let heard = '';
      child.stdout.on('data', (text: Buffer) => {
        heard += text.toString();
        const found = /at (\d+)/.exec(heard);
        if (found) resolve(Number(found[1]));
      });
      child.once('exit', (code) => reject(new Error(`The S3 server ended with ${code}.`)));
    });
  }

  async stop(): Promise<void> {
    if (!this.child) return;
    const gone = once(this.child, 'exit');
    this.child.kill('SIGKILL');
    await gone;
    this.child = null;
  }

  /** What the program is told of it. */
  get settings(): Record<`INKWELL_S3_${'ENDPOINT' | 'BUCKET' | 'KEY' | 'SECRET' | 'REGION'}`, string> {
    return {
      INKWELL_S3_ENDPOINT: `http://127.0.0.1:${this.port}`,
      INKWELL_S3_REGION: 'us-east-1',
      INKWELL_S3_BUCKET: 'kites',
      INKWELL_S3_KEY: 'S3RVER',
      INKWELL_S3_SECRET: 'S3RVER',
    };
  }
}
