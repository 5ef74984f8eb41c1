import { readFileSync } from 'node:fs';
import { gunzipSync } from 'node:zlib';
import { readExr } from '@/core/formats/exr/exr';
import { deriveModel } from '@/core/model/derive';
import { takenIn } from '@/core/project/choices';
import { validateProject } from '@/core/project/commands';
import type { Project } from '@/core/project/schema';
import type { Camera } from '@/core/render/camera';
import { pictureScene } from '@/core/render/picture';
import { prepareScene, type PreparedScene } from '@/core/render/prepared';
import { cameraOf, shotFrom } from '@/core/render/shot';

/** The house as it was when the references were made: the demo may grow. */
const cottage = (): Project => validateProject(JSON.parse(gunzipSync(readFileSync('bench/references/cottage.json.gz')).toString()));

/** The views that pictures are measured by; the last by the light of its lamps. */
export const VIEWS = ['kitchen', 'living', 'shower', 'loft'] as const;
export type ViewName = (typeof VIEWS)[number];

const EVENING = '2026-05-12T21:50';

/** Pixels of references and of what is compared with them. */
export const SIZE = { width: 320, height: 200 } as const;

/** References are kept in thousands of cd/m²: half floats end at 65. */
export const UNIT = 1000;

/** Textures as the references have them, pixels along the longest side. */
const TEXTURE = 256;

/** A view of it ready to be traced. */
export function preparedView(name: ViewName): { scene: PreparedScene; camera: Camera } {
  const whole = cottage();
  const project = name === 'loft' ? takenIn(whole, whole.scheme, EVENING) : whole;
  const model = deriveModel(project);
  const shot = shotFrom(project.viewpoints[`view-${name}`]);
  return { scene: prepareScene(pictureScene(model, TEXTURE, shot.looking)), camera: cameraOf(model, shot) };
}

export interface Reference {
  samples: number;
  /** Three values a pixel, cd/m²; nothing is cut from them. */
  radiance: Float32Array;
  /** Standard error of the luminance of each pixel, and what the limit of pictures would take of it, cd/m². */
  error: Float32Array;
  cut: Float32Array;
}

/** A picture others are measured by. */
export function reference(name: ViewName): Reference {
  const { channels, notes } = readExr(new Uint8Array(readFileSync(`bench/references/${name}.exr`)));
  const plane = (channel: string): Float32Array => channels.find((c) => c.name === channel)!.data.map((v) => v * UNIT);
  const [r, g, b] = ['R', 'G', 'B'].map(plane);
  return {
    samples: Number(notes.samples),
    radiance: Float32Array.from({ length: r.length * 3 }, (_, i) => [r, g, b][i % 3][Math.floor(i / 3)]),
    error: plane('error'),
    cut: plane('cut'),
  };
}
