import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import { guard, HEADERS, originsOf, type Served } from './guard';

/** The HTTP server: what the guard turns away is answered here, the rest goes in. */
export function makeDoor(served: Served, inside: (request: IncomingMessage, response: ServerResponse) => Promise<void>): Server {
  const origins = originsOf(served);
  const server = createServer({ requestTimeout: 600_000, headersTimeout: 30_000 }, (request, response) => {
    for (const [name, value] of Object.entries(HEADERS)) response.setHeader(name, value);
    // Pages get a policy with a nonce of their own from the proxy; what is no page may load nothing.
    if (request.url?.startsWith('/api/')) response.setHeader('content-security-policy', "default-src 'none'; frame-ancestors 'none'");
    const turned = guard({ method: request.method ?? '', url: request.url ?? '/', headers: request.headers }, origins);
    if (!turned) {
      inside(request, response).catch((error: unknown) => {
        console.error(error);
        if (!response.headersSent) say(response, 500, 'Something went wrong on the server; nothing was changed. Try again.');
        else response.destroy();
      });
      return;
    }
    // What is still on its way is let pass, so that the answer is read; a long body is cut off.
    request.resume();
    if (Number(request.headers['content-length'] ?? 0) > 1 << 20) response.setHeader('connection', 'close');
    say(response, turned.status, turned.message);
  });
  // The framework takes upgrades itself while one develops; strangers get none.
  server.prependListener('upgrade', (request, socket) => {
    if (guard({ method: request.method ?? '', url: request.url ?? '/', headers: request.headers }, origins)) socket.destroy();
  });
  server.on('clientError', (_error, socket) => {
    if (socket.writable) socket.end('HTTP/1.1 400 Bad Request\r\nconnection: close\r\ncontent-length: 0\r\n\r\n');
  });
  return server;
}

function say(response: ServerResponse, status: number, message: string): void {
  response.statusCode = status;
  response.setHeader('content-type', 'application/json; charset=utf-8');
  response.setHeader('cache-control', 'no-store');
  if (status === 405) response.setHeader('allow', 'GET, HEAD, POST, PATCH, DELETE');
  response.end(JSON.stringify({ code: 'door', message, ids: [] }));
}
