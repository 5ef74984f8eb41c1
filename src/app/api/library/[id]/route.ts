import { app } from '@/server/application';
import { respond } from '@/server/web/respond';

export const dynamic = 'force-dynamic';

export const DELETE = (_request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  respond(async () => {
    await (await app()).library.remove((await params).id);
    return Response.json({ ok: true });
  });
