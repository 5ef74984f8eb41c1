import { z } from 'zod';
import { Change, sentence } from '@/core/project/commands';
import { DomainError } from '@/core/project/errors';
import { app } from '@/server/application';
import { LIMITS } from '@/server/config';
import { ChangeRefused } from '@/server/store/projects';
import { bodyJson, respond } from '@/server/web/respond';

export const dynamic = 'force-dynamic';

interface Context {
  params: Promise<{ id: string }>;
}

const Batch = z.object({ base: z.number().int().min(0), changes: z.array(z.unknown()).min(1).max(1000) });

export const GET = (request: Request, { params }: Context): Promise<Response> =>
  respond(async () => {
    const { id } = await params;
    const since = z.coerce.number().int().min(0).catch(0).parse(new URL(request.url).searchParams.get('since'));
    const { projects } = await app();
    const { seq } = await projects.load(id);
    const changes = seq > since ? await projects.changesSince(id, since) : [];
    // Who is far behind gets them in stretches: the number is that of the last one that was sent.
    return Response.json({ seq: changes.at(-1)?.seq ?? seq, changes });
  });

export const POST = (request: Request, { params }: Context): Promise<Response> =>
  respond(async () => {
    const { id } = await params;
    const { base, changes } = await bodyJson(request, Batch, LIMITS.changes);
    const answer = await (await app()).projects.append(id, base, changes.map(readChange));
    return Response.json(answer, { status: answer.ok ? 200 : 409 });
  });

/** One change of a batch; one that is no change is named by its id, so that the others can come again without it. */
function readChange(value: unknown): Change {
  const change = Change.safeParse(value);
  if (change.success) return change.data;
  const refusal = new DomainError('request', `The request was not understood: ${sentence(change.error)}`);
  const named = z.object({ id: z.string().max(200) }).safeParse(value);
  throw named.success ? new ChangeRefused(refusal, named.data.id) : refusal;
}
