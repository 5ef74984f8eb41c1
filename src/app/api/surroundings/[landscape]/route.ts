import { LANDSCAPES } from '@/core/project/schema';
import { DomainError } from '@/core/project/errors';
import { landscapeFile } from '@/server/jobs/landscapes';
import { respond, sendFile } from '@/server/web/respond';

export const dynamic = 'force-dynamic';

/** A picture of a landscape that ships. */
export const GET = (_request: Request, { params }: { params: Promise<{ landscape: string }> }): Promise<Response> =>
  respond(async () => {
    const { landscape } = await params;
    const known = LANDSCAPES.find((name) => name === landscape);
    if (!known) throw new DomainError('file.missing', 'There is no such landscape.');
    return sendFile(landscapeFile(known), { 'content-type': 'image/vnd.radiance', 'cache-control': 'private, max-age=86400' }, true);
  });
