import { app } from '@/server/application';
import { respond } from '@/server/web/respond';

export const dynamic = 'force-dynamic';

interface Context {
  params: Promise<{ id: string }>;
}

/** How far an errand has come. */
export const GET = (_request: Request, { params }: Context): Promise<Response> =>
  respond(async () => Response.json((await app()).errands.look((await params).id)));

/** Cancels an errand. */
export const DELETE = (_request: Request, { params }: Context): Promise<Response> =>
  respond(async () => {
    (await app()).errands.cancel((await params).id);
    return new Response(null, { status: 204 });
  });
