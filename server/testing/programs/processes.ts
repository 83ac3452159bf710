import { type ChildProcess, spawn } from 'node:child_process';
import { once } from 'node:events';
import { bundled } from '../../bundling/bundle.ts';
import { Client } from './client.ts';

function begin(
  role: 'serve' | 'worker' | 'standins',
  env: NodeJS.ProcessEnv,
  options: readonly string[] = [],
  core?: number,
): ChildProcess {
  const node = [process.execPath, bundled('main'), role, ...options];
  const [command = '', ...words] = core === undefined ? node : ['taskset', '-c', String(core), ...node];
  const child = spawn(command, words, {
    env,
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  // A test or a bench that fails half-way leaves nothing running.
  const endToo = () => child.kill();
  process.once('exit', endToo);
  child.once('exit', () => process.off('exit', endToo));
  return child;
}

/** What a process says about itself, as soon as it says it. @throws where it ends before */
function said(child: ChildProcess, what: RegExp): Promise<string> {
  return new Promise((resolve, reject) => {
    let heard = '';
    child.stdout?.on('data', (text: Buffer) => {
      heard += text.toString();
      const found = what.exec(heard);
      if (found) resolve(found[0]);
    });
    child.once('exit', (code) => reject(new Error(`The program ended with ${code} before it was up.`)));
  });
}

const runs = ({ exitCode, signalCode }: ChildProcess): boolean => exitCode === null && signalCode === null;

async function end(child: ChildProcess, signal: NodeJS.Signals): Promise<void> {
  if (!runs(child)) return;
  const gone = once(child, 'exit');
  child.kill(signal);
  await gone;
}

/** A worker as a process of its own. */
export class WorkerProcess {
  private constructor(private readonly child: ChildProcess) {}

  /** @param options as on the command line @param core the only one that it may use, as of a machine with one */
  static async start(env: NodeJS.ProcessEnv, options: readonly string[] = [], core?: number): Promise<WorkerProcess> {
    const child = begin('worker', env, options, core);
    await said(child, /at work/);
    return new WorkerProcess(child);
  }

  get pid(): number {
    return this.child.pid ?? 0;
  }

  get isRunning(): boolean {
    return runs(this.child);
  }

  /** By default as when it is told to stop; with SIGKILL, as when the machine fails. */
  end = (signal: NodeJS.Signals = 'SIGTERM'): Promise<void> => end(this.child, signal);
}

/** A server as a process of its own. */
export class ServerProcess {
  private constructor(
    private readonly child: ChildProcess,
    readonly address: string,
  ) {}

  static async start(env: NodeJS.ProcessEnv): Promise<ServerProcess> {
    const child = begin('serve', env);
    return new ServerProcess(child, await said(child, /http:\/\/127\.0\.0\.1:\d+/));
  }

  get pid(): number {
    return this.child.pid ?? 0;
  }

  get isRunning(): boolean {
    return runs(this.child);
  }

  end = (signal: NodeJS.Signals = 'SIGTERM'): Promise<void> => end(this.child, signal);
}

/** The simulated networks as a process of its own. @returns what ends it */
export async function startNetworksProcess(env: NodeJS.ProcessEnv): Promise<() => Promise<void>> {
  const child = begin('standins', env);
  await said(child, /at work/);
  return () => end(child, 'SIGTERM');
}

/** A server and a worker, as the start command runs them. */
export async function startProcesses(env: NodeJS.ProcessEnv) {
  const server = await ServerProcess.start(env);
  const worker = await WorkerProcess.start(env);
  return {
    client: new Client(server.address),
    server,
    worker,
    async stop() {
      await Promise.all([server.end(), worker.end()]);
    },
  };
}
