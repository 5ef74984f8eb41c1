import { z } from 'zod';
import { app } from '@/server/application';
import { LIMITS } from '@/server/config';
import { bodyJson, respond } from '@/server/web/respond';

export const dynamic = 'force-dynamic';

interface Context {
  params: Promise<{ id: string }>;
}

export const GET = (_request: Request, { params }: Context): Promise<Response> =>
  respond(async () => {
    const { id } = await params;
    const { projects } = await app();
    const { seq, project } = await projects.load(id);
    return Response.json({ seq, project, history: await projects.history(id), earlier: (await projects.boundary(id)) > 0 });
  });

export const DELETE = (_request: Request, { params }: Context): Promise<Response> =>
  respond(async () => {
    await (await app()).projects.setDeleted((await params).id, true);
    return new Response(null, { status: 204 });
  });

/** Puts a deleted project back. */
export const PATCH = (request: Request, { params }: Context): Promise<Response> =>
  respond(async () => {
    await bodyJson(request, z.object({ deleted: z.literal(false) }), LIMITS.small);
    await (await app()).projects.setDeleted((await params).id, false);
    return new Response(null, { status: 204 });
  });
