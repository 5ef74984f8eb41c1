import { app } from '@/server/app';
import { respond } from '@/server/http';

export const dynamic = 'force-dynamic';

export const GET = (_request: Request, { params }: { params: Promise<{ hash: string }> }): Promise<Response> =>
  respond(async () => {
    const { bytes, mime } = await (await app()).files.read((await params).hash);
    return new Response(new Uint8Array(bytes), { headers: { 'content-type': mime, 'cache-control': 'private, max-age=31536000, immutable' } });
  });
