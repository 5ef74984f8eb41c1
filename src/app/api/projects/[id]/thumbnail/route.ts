import { app } from '@/server/application';
import { cardPicture } from '@/server/cards';
import { respond } from '@/server/web/respond';

export const dynamic = 'force-dynamic';

export const GET = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  respond(async () => {
    const { id } = await params;
    return new Response(await cardPicture(await app(), id, request.signal), {
      headers: { 'content-type': 'image/png', 'cache-control': 'private, max-age=31536000, immutable' },
    });
  });
