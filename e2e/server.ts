import { type ChildProcess, spawn } from 'node:child_process';
import { cpSync, mkdtempSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

const MAIN = fileURLToPath(new URL('../server/dist/main.js', import.meta.url));

/** The built server with demo data in a folder of its own, on a free loopback port; ended by its process. */
export class DemoServer {
  readonly port: number;
  readonly data = mkdtempSync(join(tmpdir(), 'nibrel-e2e-'));
  #process: ChildProcess | null = null;

  readonly #kind: 'demo' | 'shop';

  private constructor(port: number, kind: 'demo' | 'shop') {
    this.port = port;
    this.#kind = kind;
  }

  /** @param kind with the invented workshop, or as a workshop begins */
  static async start(kind: 'demo' | 'shop' = 'demo'): Promise<DemoServer> {
    const server = new DemoServer(await freePort(), kind);
    const seeded = process.env['NIBREL_SEEDED'];
    if (kind === 'demo' && seeded) cpSync(seeded, server.data, { recursive: true });
    await server.up();
    return server;
  }

  get url(): string {
    return `http://127.0.0.1:${this.port}`;
  }

  async up(): Promise<void> {
    const env = { ...process.env, NIBREL_PORT: String(this.port), NIBREL_DATA: this.data };
    const child = spawn(process.execPath, [MAIN, ...(this.#kind === 'demo' ? ['--demo'] : [])], {
      env,
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    this.#process = child;
    // a script that fails leaves no server behind
    process.once('exit', () => child.kill('SIGKILL'));
    await new Promise<void>((resolve, reject) => {
      child.stdout!.on('data', (text: Buffer) => text.toString().includes('is ready at') && resolve());
      child.once('exit', (code) => reject(new Error(`The server ended with ${code}.`)));
    });
  }

  /** Ends it as a power cut would. */
  kill(): Promise<void> {
    return this.#ended('SIGKILL');
  }

  /** Ends it as it is ended by whoever started it. */
  end(): Promise<void> {
    return this.#ended('SIGTERM');
  }

  async #ended(signal: 'SIGKILL' | 'SIGTERM'): Promise<void> {
    const child = this.#process!;
    const ended = new Promise<void>((resolve) => child.once('exit', () => resolve()));
    child.kill(signal);
    await ended;
  }
}

function freePort(): Promise<number> {
  return new Promise((resolve, reject) => {
    const probe = createServer();
    probe.once('error', reject);
    probe.listen(0, '127.0.0.1', () => {
      const address = probe.address();
      probe.close(() => resolve(typeof address === 'object' && address ? address.port : 0));
    });
  });
}
