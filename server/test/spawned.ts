import { type ChildProcess, spawn } from 'node:child_process';
import { once } from 'node:events';
import { fileURLToPath } from 'node:url';

const DIST = fileURLToPath(new URL('../dist/', import.meta.url));

/** A built program as a process of its own: what it says, and how it ends. Ended by its process id. */
export class Spawned {
  readonly child: ChildProcess;
  out = '';
  err = '';
  readonly ended: Promise<number | null>;

  /** @param within a command that it is started by, with its arguments */
  constructor(
    program: 'main' | 'backup',
    args: readonly string[],
    env: Record<string, string>,
    within: readonly string[] = [],
  ) {
    const [command, ...rest] = [...within, process.execPath, `${DIST}${program}.js`, ...args];
    this.child = spawn(command!, rest, {
      env: { ...process.env, NIBREL_PORT: '0', ...env },
      stdio: ['ignore', 'pipe', 'pipe'],
    });
    this.child.stdout!.on('data', (text: Buffer) => (this.out += text.toString()));
    this.child.stderr!.on('data', (text: Buffer) => (this.err += text.toString()));
    this.ended = once(this.child, 'close').then(([code]) => code as number | null);
  }

  /** Its address, once it is ready; an error with what it said where it ends instead. */
  async ready(): Promise<string> {
    for (;;) {
      const found = /ready at (\S+)/.exec(this.out);
      if (found) return found[1]!;
      const more = once(this.child.stdout!, 'data').then(() => null);
      const code = await Promise.race([more, this.ended.then((each) => each ?? -1)]);
      if (code !== null && !this.out.includes('ready at')) throw new Error(`Ended with ${code}: ${this.err}`);
    }
  }

  async kill(signal: NodeJS.Signals = 'SIGKILL'): Promise<void> {
    this.child.kill(signal);
    await this.ended;
  }
}
