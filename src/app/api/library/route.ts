import { app } from '@/server/application';
import { LIMITS } from '@/server/config';
import { bodyJson, respond } from '@/server/web/respond';
import { LibraryEntry } from '@/server/store/library';

export const dynamic = 'force-dynamic';

export const GET = (): Promise<Response> => respond(async () => Response.json(await (await app()).library.list()));

export const POST = (request: Request): Promise<Response> =>
  respond(async () => {
    const entry = await bodyJson(request, LibraryEntry, LIMITS.changes);
    return Response.json({ id: await (await app()).library.keep(entry) }, { status: 201 });
  });
