import { z } from 'zod';
import { app, modelOf } from '@/server/app';
import { LIMITS } from '@/server/config';
import { bodyJson, respond } from '@/server/http';
import type { ProjectCard } from '@/server/projects';

export const dynamic = 'force-dynamic';

const NewProject = z.object({ name: z.string().trim().min(1, 'a name has at least one letter').max(120), units: z.enum(['metric', 'imperial']) });

export const GET = (): Promise<Response> =>
  respond(async () => {
    const { projects } = await app();
    const cards: ProjectCard[] = [];
    for (const row of await projects.list()) {
      const { model } = await modelOf(projects, row.id);
      const rooms = [...model.shell.rooms.values()];
      cards.push({
        id: row.id,
        name: row.name,
        seq: row.seq,
        changedAt: row.changedAt.toISOString(),
        rooms: rooms.length,
        area: rooms.reduce((sum, r) => sum + r.area, 0),
        pieces: model.pieces.length,
      });
    }
    return Response.json(cards);
  });

export const POST = (request: Request): Promise<Response> =>
  respond(async () => {
    const { name, units } = await bodyJson(request, NewProject, LIMITS.small);
    const { projects } = await app();
    return Response.json({ id: await projects.createEmpty(name, units) }, { status: 201 });
  });
