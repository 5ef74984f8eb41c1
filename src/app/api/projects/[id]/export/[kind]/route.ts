import { PROJECT_FILE } from '@/core/formats/project-file/project-file';
import { DomainError } from '@/core/project/errors';
import { app, modelOf } from '@/server/app';
import { boardOf, exportGlb, exportPdf, exportPng } from '@/server/exports';
import { download, respond } from '@/server/http';

export const dynamic = 'force-dynamic';

export const GET = (request: Request, { params }: { params: Promise<{ id: string; kind: string }> }): Promise<Response> =>
  respond(async () => {
    const { id, kind } = await params;
    const query = new URL(request.url).searchParams;
    const { projects, files } = await app();
    if (kind === 'file') {
      const { name, bytes } = await projects.export(id);
      return download(bytes, 'application/zip', `${name}${PROJECT_FILE}`);
    }
    const { model } = await modelOf(projects, id);
    const { project } = model;
    switch (kind) {
      case 'glb':
        return download(await exportGlb(model, files), 'model/gltf-binary', `${project.name}.glb`);
      case 'pdf': {
        const board = boardOf(project, query.get('board'));
        return download(await exportPdf(project, board, files), 'application/pdf', `${project.name}, ${board.name}.pdf`);
      }
      case 'png': {
        const board = boardOf(project, query.get('board'));
        return download(await exportPng(project, board, query.get('page'), files), 'image/png', `${project.name}, ${board.name}.png`);
      }
      default:
        throw new DomainError('export.missing', 'There is no such export.');
    }
  });
