import { spawn, type ChildProcess } from 'node:child_process';
import { readdirSync, readFileSync } from 'node:fs';
import http, { type IncomingHttpHeaders } from 'node:http';

export interface Answer {
  status: number;
  headers: IncomingHttpHeaders;
  body: Buffer;
  /** Milliseconds until it was there. */
  ms: number;
}

export interface Ask {
  method?: string;
  headers?: Record<string, string>;
  body?: Uint8Array | string;
  /** Given up after, ms. */
  patience?: number;
}

/** JSON of an answer; null where it is none. */
export function jsonOf<T>(answer: Answer): T | null {
  try {
    return JSON.parse(answer.body.toString('utf8')) as T;
  } catch {
    return null;
  }
}

/** A built server on a folder of its own, started, asked and killed. */
export class Target {
  private process: ChildProcess | null = null;
  said = '';
  /** The most memory the server and its processes held together, MB. */
  peak = 0;
  private sampling: ReturnType<typeof setInterval> | null = null;

  constructor(
    readonly folder: string,
    readonly port: number,
  ) {}

  get running(): boolean {
    return this.process !== null && this.process.exitCode === null && this.process.signalCode === null;
  }

  /** Starts it and waits until it answers, or has ended. */
  async start(): Promise<boolean> {
    const child = spawn('node', ['--import', 'tsx', 'src/server/main.ts'], {
      env: { ...process.env, NODE_ENV: 'production', ENSTEGON_DATA: this.folder, PORT: String(this.port), HOST: '127.0.0.1', ENSTEGON_ORIGIN: '' },
      stdio: ['ignore', 'ignore', 'pipe'],
    });
    this.process = child;
    this.said = '';
    child.stderr!.on('data', (chunk: Buffer) => (this.said = (this.said + chunk.toString()).slice(-20_000)));
    this.sampling = setInterval(() => (this.peak = Math.max(this.peak, memoryOf(child.pid!))), 150);
    for (let i = 0; i < 400; i++) {
      if (!this.running) return false;
      // Its own word, since a port may be held by another server.
      if (this.said.includes('Enstegon: http')) return true;
      await new Promise((done) => setTimeout(done, 100));
    }
    throw new Error(`The server did not start: ${this.said}`);
  }

  async stop(signal: NodeJS.Signals = 'SIGTERM'): Promise<void> {
    const child = this.process;
    if (this.sampling) clearInterval(this.sampling);
    this.process = null;
    if (!child || child.exitCode !== null || child.signalCode !== null) return;
    await new Promise<void>((done) => {
      child.once('exit', () => done());
      child.kill(signal);
    });
  }

  /** Asks it something. A connection that breaks is an answer of status 0. */
  ask(path: string, { method = 'GET', headers = {}, body, patience = 120_000 }: Ask = {}): Promise<Answer> {
    const begun = performance.now();
    return new Promise((resolve) => {
      const end = (status: number, h: IncomingHttpHeaders, bytes: Buffer): void => resolve({ status, headers: h, body: bytes, ms: performance.now() - begun });
      const request = http.request(
        { host: '127.0.0.1', port: this.port, path, method, agent: false, headers: { connection: 'close', ...headers } },
        (response) => {
          const chunks: Buffer[] = [];
          response.on('data', (chunk: Buffer) => chunks.push(chunk));
          response.on('end', () => end(response.statusCode ?? 0, response.headers, Buffer.concat(chunks)));
          response.on('error', () => end(0, {}, Buffer.alloc(0)));
        },
      );
      request.setTimeout(patience, () => request.destroy());
      request.on('error', () => end(0, {}, Buffer.alloc(0)));
      if (body !== undefined) request.write(body);
      request.end();
    });
  }

  json(path: string, value: unknown, method = 'POST', patience?: number): Promise<Answer> {
    const body = typeof value === 'string' ? value : JSON.stringify(value);
    return this.ask(path, { method, body, patience, headers: { 'content-type': 'application/json', 'content-length': String(Buffer.byteLength(body)) } });
  }

  bytes(path: string, body: Uint8Array, headers: Record<string, string> = {}): Promise<Answer> {
    return this.ask(path, { method: 'POST', body, headers: { 'content-type': 'application/octet-stream', 'content-length': String(body.length), ...headers } });
  }

  async newProject(name: string): Promise<string> {
    const made = jsonOf<{ id: string }>(await this.json('/api/projects', { name, units: 'metric' }));
    if (!made) throw new Error('No project was made.');
    return made.id;
  }
}

/** Memory of a process and its children, MB, from /proc; 0 elsewhere. */
function memoryOf(pid: number): number {
  try {
    const children = readdirSync(`/proc/${pid}/task`).flatMap((task) =>
      readFileSync(`/proc/${pid}/task/${task}/children`, 'utf8').split(' ').filter(Boolean).map(Number),
    );
    const own = Number(/^VmRSS:\s+(\d+) kB$/m.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0) / 1024;
    return own + children.reduce((sum, child) => sum + memoryOf(child), 0);
  } catch {
    return 0;
  }
}
