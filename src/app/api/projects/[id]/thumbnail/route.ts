import { app, modelOf } from '@/server/app';
import { thumbnail } from '@/server/exports';
import { respond } from '@/server/http';

export const dynamic = 'force-dynamic';

export const GET = (_request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  respond(async () => {
    const { projects, files } = await app();
    const { model } = await modelOf(projects, (await params).id);
    return new Response(new Uint8Array(await thumbnail(model, files)), {
      headers: { 'content-type': 'image/png', 'cache-control': 'private, max-age=31536000, immutable' },
    });
  });
