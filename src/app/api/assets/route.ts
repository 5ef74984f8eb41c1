import { app } from '@/server/app';
import { LIMITS } from '@/server/config';
import { bodyBytes, respond } from '@/server/http';

export const dynamic = 'force-dynamic';

export const POST = (request: Request): Promise<Response> =>
  respond(async () => {
    const bytes = await bodyBytes(request, LIMITS.asset);
    return Response.json({ hash: await (await app()).files.keep(bytes) }, { status: 201 });
  });
