import type { AddressInfo } from 'node:net';
import next from 'next';
import { DomainError } from '@/core/project/errors';
import { app, closeApp } from './application';
import { makeDoor } from './web/door';
import { parseOrigins } from './web/guard';

/** Asks for the list and the latest project once, so that the first visitor does not wait while their code is loaded. */
async function warmUp(here: string): Promise<void> {
  try {
    const [cards] = await Promise.all([
      fetch(`${here}/api/projects?known`).then((r) => r.json() as Promise<{ id: string; damaged: string | null }[]>),
      fetch(here),
    ]);
    const first = cards.find((card) => !card.damaged);
    if (first) await Promise.all([fetch(`${here}/project/${first.id}`), fetch(`${here}/api/projects/${first.id}`)]);
  } catch {
    // Whoever comes first is told what is wrong.
  }
}

/** Serves the application: `ENSTEGON_DATA`, `HOST`, `PORT` and `ENSTEGON_ORIGIN` say from where and as what. */
async function serve(): Promise<void> {
  const host = process.env.HOST ?? '127.0.0.1';
  const port = Number(process.env.PORT ?? 3210);
  const origins = parseOrigins(process.env.ENSTEGON_ORIGIN);
  // What is wrong with the folder is said now; all but another server on it may pass while this one is up.
  await app().catch((error: unknown) => {
    if (!(error instanceof DomainError) || error.code === 'store.locked') throw error;
    console.error(error.message);
  });
  let inside: ReturnType<ReturnType<typeof next>['getRequestHandler']> | null = null;
  const server = makeDoor({ host, port, origins }, (request, response) => inside!(request, response));
  const routes = next({ dev: process.env.NODE_ENV !== 'production', hostname: host, port, httpServer: server });
  await routes.prepare();
  inside = routes.getRequestHandler();
  const stop = (): void => {
    server.close();
    server.closeAllConnections();
    void closeApp().finally(() => process.exit(0));
  };
  process.once('SIGTERM', stop);
  process.once('SIGINT', stop);
  server.once('error', (error: NodeJS.ErrnoException) => {
    console.error(error.code === 'EADDRINUSE' ? `Port ${port} is in use; choose another one with PORT.` : String(error));
    process.exit(1);
  });
  server.listen(port, host, () => {
    const { address, port: actual } = server.address() as AddressInfo;
    void warmUp(`http://${['0.0.0.0', '::'].includes(address) ? '127.0.0.1' : address.includes(':') ? `[${address}]` : address}:${actual}`);
    console.error(`Enstegon: http://${address.includes(':') ? `[${address}]` : address}:${actual}${origins.length ? `, as ${origins.join(', ')}` : ''}`);
  });
}

serve().catch((error: unknown) => {
  console.error(error instanceof DomainError || error instanceof RangeError ? error.message : error);
  process.exit(1);
});
