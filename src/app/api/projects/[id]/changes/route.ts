import { z } from 'zod';
import { Change } from '@/core/project/commands';
import { app } from '@/server/app';
import { LIMITS } from '@/server/config';
import { bodyJson, respond } from '@/server/http';

export const dynamic = 'force-dynamic';

interface Context {
  params: Promise<{ id: string }>;
}

const Batch = z.object({ base: z.number().int().min(0), changes: z.array(Change).min(1).max(1000) });

export const GET = (request: Request, { params }: Context): Promise<Response> =>
  respond(async () => {
    const { id } = await params;
    const since = z.coerce.number().int().min(0).catch(0).parse(new URL(request.url).searchParams.get('since'));
    const { projects } = await app();
    const { seq } = await projects.load(id);
    return Response.json({ seq, changes: seq > since ? await projects.changesSince(id, since) : [] });
  });

export const POST = (request: Request, { params }: Context): Promise<Response> =>
  respond(async () => {
    const { id } = await params;
    const { base, changes } = await bodyJson(request, Batch, LIMITS.changes);
    const answer = await (await app()).projects.append(id, base, changes);
    return Response.json(answer, { status: answer.ok ? 200 : 409 });
  });
