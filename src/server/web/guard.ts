import { isIP } from 'node:net';

/** A request as the guard looks at it. Names of headers are in lower case. */
export interface Asked {
  method: string;
  url: string;
  headers: Record<string, string | string[] | undefined>;
}

/** Why a request is not answered. */
export interface Turned {
  status: number;
  message: string;
}

export interface Served {
  /** Address and port the server listens on. */
  host: string;
  port: number;
  /** Where it can be reached besides, as origins ("https://studio.example"): set by whoever puts it behind another name. */
  origins: readonly string[];
}

const READS = new Set(['GET', 'HEAD']);
const METHODS = new Set([...READS, 'POST', 'PATCH', 'DELETE']);
const LOOPBACK = ['127.0.0.1', 'localhost', '[::1]'];
/** What a form of another site can't send without being asked for leave. */
const BODIES = /^(application\/(json|octet-stream|zip)|image\/[a-z0-9.+-]+)(;|$)/i;

/** Origins set by hand, apart by commas. @throws RangeError for one that is none */
export function parseOrigins(text: string | undefined): string[] {
  return (text ?? '')
    .split(',')
    .map((t) => t.trim())
    .filter(Boolean)
    .map((t) => {
      let url: URL;
      try {
        url = new URL(t);
      } catch {
        throw new RangeError(`ENSTEGON_ORIGIN holds “${t}”, which is no origin; write it as https://studio.example.`);
      }
      if (!/^https?:$/.test(url.protocol) || url.origin !== t.replace(/\/$/, ''))
        throw new RangeError(`ENSTEGON_ORIGIN holds “${t}”, which is no origin; write it as https://studio.example.`);
      return url.origin;
    });
}

/** The origins under which a server answers. */
export function originsOf({ host, port, origins }: Served): Set<string> {
  const named = isIP(host) === 6 ? `[${host}]` : host;
  // A server on all addresses is not known by a name until one is set.
  const everywhere = host === '0.0.0.0' || host === '::';
  const hosts = new Set([...LOOPBACK, ...(everywhere ? [] : [named])]);
  return new Set([...[...hosts].map((h) => new URL(`http://${h}:${port}`).origin), ...origins]);
}

/**
 * Whether a request is answered. A page of another site can neither have something changed (Origin, Sec-Fetch-Site and
 * the kind of the body tell) nor read through a name that it lets point here (Host tells).
 *
 * @returns null, or why it is turned away
 */
export function guard(asked: Asked, origins: ReadonlySet<string>): Turned | null {
  const header = (name: string): string | undefined => {
    const value = asked.headers[name];
    return Array.isArray(value) ? value.join(',') : value;
  };
  if (!METHODS.has(asked.method)) return { status: 405, message: 'The request was not understood: its method is not in use here.' };
  const host = header('host') ?? '';
  if (![...origins].some((origin) => new URL(origin).host === host.toLowerCase()))
    return {
      status: 403,
      message: `This server does not answer under the name ${/^[\w.:[\]-]{1,80}$/.test(host) ? host : 'it was called by'}; whoever runs it can allow that with ENSTEGON_ORIGIN.`,
    };
  let path: string;
  try {
    path = asked.url.split('?', 1)[0].split('/').map(decodeURIComponent).join('/');
  } catch {
    return { status: 400, message: 'The request was not understood: its address is not well formed.' };
  }

  if (/[\x00-\x1f\x7f]/.test(path) || asked.url.length > 4096)
    return { status: 400, message: 'The request was not understood: its address is not well formed.' };
  // The framework's own addresses are asked while one develops; a built server knows none of them.
  if (!path.startsWith('/api/') && !path.startsWith('/__nextjs'))
    return READS.has(asked.method) ? null : { status: 405, message: 'The request was not understood: nothing is changed at this address.' };
  const site = header('sec-fetch-site');
  const origin = header('origin');
  const strange = (site !== undefined && site !== 'same-origin' && site !== 'none') || (origin !== undefined && !origins.has(origin.toLowerCase()));
  if (strange) return { status: 403, message: 'Nothing was changed or sent: the request comes from a page of another site.' };
  if (READS.has(asked.method)) return null;
  const length = Number(header('content-length') ?? 0);
  const bodied = length > 0 || header('transfer-encoding') !== undefined;
  if (bodied && !BODIES.test(header('content-type') ?? ''))
    return { status: 415, message: 'Nothing was changed: the request has to say that its body is JSON, a picture or a project file.' };
  return null;
}

/** What every answer carries. */
export const HEADERS: Record<string, string> = {
  'x-content-type-options': 'nosniff',
  'referrer-policy': 'no-referrer',
  'cross-origin-opener-policy': 'same-origin',
  'cross-origin-resource-policy': 'same-origin',
  'permissions-policy': 'camera=(), microphone=(), geolocation=()',
  'x-frame-options': 'DENY',
};
