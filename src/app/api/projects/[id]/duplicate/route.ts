import { app } from '@/server/application';
import { respond } from '@/server/web/respond';

export const dynamic = 'force-dynamic';

export const POST = (_request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  respond(async () => Response.json({ id: await (await app()).projects.duplicate((await params).id) }, { status: 201 }));
