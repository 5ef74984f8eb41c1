import { z } from 'zod';
import { Name } from '@/core/project/schema';
import { app } from '@/server/application';
import { cards, deletedProjects } from '@/server/cards';
import { LIMITS } from '@/server/config';
import { bodyJson, respond } from '@/server/web/respond';

export const dynamic = 'force-dynamic';

const NewProject = z.object({ name: z.string().trim().pipe(Name), units: z.enum(['metric', 'imperial']) });

/** The projects as cards, with `?known` at once with the figures that are known; with `?deleted`, those that can be put back. */
export const GET = (request: Request): Promise<Response> =>
  respond(async () => {
    const own = await app();
    const query = new URL(request.url).searchParams;
    return Response.json(query.has('deleted') ? await deletedProjects(own) : await cards(own, !query.has('known')));
  });

export const POST = (request: Request): Promise<Response> =>
  respond(async () => {
    const { name, units } = await bodyJson(request, NewProject, LIMITS.small);
    const { projects } = await app();
    return Response.json({ id: await projects.createEmpty(name, units) }, { status: 201 });
  });
