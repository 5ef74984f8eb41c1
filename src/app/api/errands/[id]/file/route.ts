import { app } from '@/server/application';
import { respond, sendFile } from '@/server/web/respond';

export const dynamic = 'force-dynamic';

/** The file an errand has made. */
export const GET = (_request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  respond(async () => {
    const { file, headers } = (await app()).errands.take((await params).id);
    return sendFile(file, headers);
  });
