import { rename, unlink } from 'node:fs/promises';
import { app } from '@/server/application';
import { LIMITS } from '@/server/config';
import { importProject } from '@/server/handing';
import { passing } from '@/server/store/folder';
import { respond, withBodyFile } from '@/server/web/respond';

export const dynamic = 'force-dynamic';

/** Opens a project file. With `Prefer: respond-async` (RFC 7240) the answer comes at once and names the errand to ask after. */
export const POST = (request: Request): Promise<Response> =>
  respond(() =>
    withBodyFile(request, LIMITS.projectFile, async (file) => {
      const own = await app();
      if (!request.headers.get('prefer')?.includes('respond-async'))
        return Response.json({ id: await importProject(own, file, { signal: request.signal }) }, { status: 201 });
      // The errand outlives this request, and so does its file.
      const kept = passing(own.folder);
      await rename(file, kept);
      const errand = own.errands.begin('Open a project file', async (signal, onProgress) => {
        try {
          return { project: await importProject(own, kept, { signal, onProgress }) };
        } finally {
          await unlink(kept).catch(() => undefined);
        }
      });
      return Response.json(errand, { status: 202 });
    }),
  );
