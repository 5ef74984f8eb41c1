import { app } from '@/server/application';
import { respond, sendFile } from '@/server/web/respond';

export const dynamic = 'force-dynamic';

export const GET = (_request: Request, { params }: { params: Promise<{ hash: string }> }): Promise<Response> =>
  respond(async () => {
    const { file, mime } = await (await app()).files.find((await params).hash);
    return sendFile(file, { 'content-type': mime, 'cache-control': 'private, max-age=31536000, immutable' }, true);
  });
