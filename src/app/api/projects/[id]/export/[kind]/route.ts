import { app } from '@/server/application';
import { makeExport, type Wanted } from '@/server/handing';
import { respond, sendFile } from '@/server/web/respond';

export const dynamic = 'force-dynamic';

interface Context {
  params: Promise<{ id: string; kind: string }>;
}

const TITLES: Record<string, string> = { file: 'Project file', glb: 'Model as GLB', pdf: 'Board as PDF', png: 'Page as PNG', picture: 'Picture' };

const wantedOf = (request: Request, kind: string): Wanted => {
  const query = new URL(request.url).searchParams;
  const dots = query.get('dots');
  return {
    kind,
    board: query.get('board'),
    page: query.get('page'),
    picture: query.get('picture'),
    as: query.get('as'),
    dots: dots === null ? null : Number(dots),
  };
};

/** Makes an export and sends it. Who hangs up ends the work. */
export const GET = (request: Request, { params }: Context): Promise<Response> =>
  respond(async () => {
    const { id, kind } = await params;
    const { file, headers } = await makeExport(await app(), id, wantedOf(request, kind), { signal: request.signal });
    return sendFile(file, headers);
  });

/** An export is made to be sent. */
export const HEAD = (): Response => new Response(null, { status: 405, headers: { allow: 'GET, POST', 'cache-control': 'no-store' } });

/** Begins an export and answers with the errand to ask after. */
export const POST = (request: Request, { params }: Context): Promise<Response> =>
  respond(async () => {
    const { id, kind } = await params;
    const own = await app();
    const wanted = wantedOf(request, kind);
    const errand = own.errands.begin(TITLES[kind] ?? 'Export', (signal, onProgress) => makeExport(own, id, wanted, { signal, onProgress }));
    return Response.json(errand, { status: 202 });
  });
