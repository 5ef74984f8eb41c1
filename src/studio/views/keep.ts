import type { LightShare } from '@/core/light/shares';
import { writePng } from '@/core/formats/png';
import { DomainError } from '@/core/project/errors';
import type { Development, Project } from '@/core/project/schema';
import { AS_TRACED, developed, relight } from '@/core/render/development';
import { writeLight } from '@/core/formats/light-file';
import type { Finished, Stamp } from '@/core/render/trace-job';
import { api, ApiError } from '../store/api';
import { isOpen, newId, useStudio } from '../store/studio';

export interface KeptPicture extends Finished {
  width: number;
  height: number;
  /** Colour temperature shown as white, K; null: that of the display. */
  white: number | null;
}

/** A picture as it is shown, as PNG. */
export const developPng = (
  light: { radiance: Float32Array; shares: readonly LightShare[]; width: number; height: number },
  as: Development,
): Uint8Array<ArrayBuffer> => writePng(developed(relight(light.radiance, light.shares, as.lights), as), light.width, light.height);

/** How often it is tried to add to a project that others change meanwhile. */
const TRIES = 6;

/**
 * Keeps a finished picture with the project it was begun in: in this window where that project is still open, else on
 * the server.
 *
 * @throws DomainError, ApiError where it was not kept
 */
export async function keepPicture(stamp: Stamp, { radiance, shares, width, height, samples, exposure, white }: KeptPicture): Promise<void> {
  const light = { radiance, shares, width, height };
  const development = { ...AS_TRACED, exposure, white };
  const kept = await api.keepFile(new Blob([writeLight(light)]));
  const image = await api.keepFile(new Blob([developPng(light, development)]));
  const id = newId('picture');
  const made = new Date().toISOString();
  const argsFor = (project: Project) => {
    const number = Object.values(project.pictures).filter((p) => p.name.startsWith(stamp.name)).length;
    return {
      id,
      name: number ? `${stamp.name} ${number + 1}` : stamp.name,
      viewpoint: stamp.viewpoint && project.viewpoints[stamp.viewpoint] ? stamp.viewpoint : null,
      width,
      height,
      samples,
      ...development,
      radiance: kept,
      scheme: project.schemes[stamp.scheme] ? stamp.scheme : null,
      image,
      made,
    };
  };
  if (isOpen(stamp.project)) {
    const { project, run } = useStudio.getState();
    if (!run('picture.add', argsFor(project))) throw new DomainError('picture.refused', useStudio.getState().notice ?? 'The project did not take it.');
    return;
  }
  const change = crypto.randomUUID().replace(/-/g, '').slice(0, 16);
  for (let tries = 0; tries < TRIES; tries++) {
    const { seq, project } = await api.load(stamp.project);
    const answer = await api.append(stamp.project, seq, [{ id: change, kind: 'do', command: 'picture.add', args: argsFor(project) }]);
    if (answer.ok) return;
  }
  throw new ApiError('The project it belongs to is being changed elsewhere; render it again.', 409);
}
