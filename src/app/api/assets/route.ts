import { LIGHT_TYPE } from '@/core/formats/light-type';
import { app } from '@/server/application';
import { LIMITS } from '@/server/config';
import { respond, withBodyFile } from '@/server/web/respond';

export const dynamic = 'force-dynamic';

/** Takes a picture in. The hash is that of the file as it is kept, which is another one where the picture had to be made plain. */
export const POST = (request: Request): Promise<Response> =>
  respond(() =>
    // Only the light of a picture for print may be larger than any picture.
    withBodyFile(request, request.headers.get('content-type') === LIGHT_TYPE ? LIMITS.light : LIMITS.asset, async (file) => {
      const { files } = await app();
      const hash = await files.keep(file);
      const { mime, width, height } = await files.find(hash);
      return Response.json({ hash, mime, width, height }, { status: 201 });
    }),
  );
