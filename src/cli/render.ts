import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { packPrint, printStart, writeLight } from '@/core/formats/light-file';
import { writeHdr } from '@/core/formats/hdr/hdr';
import { writePng } from '@/core/formats/png';
import type { Model } from '@/core/model/model';
import type { Shot } from '@/core/project/schema';
import { AS_TRACED, develop } from '@/core/render/development';
import { cleanPicture } from '@/core/render/denoiser/picture';
import { Film } from '@/core/render/film';
import { isLarge, LargeJob, smallSize, type DoneRows, type LargeStore, type LargeWorkshop, type RawRows } from '@/core/render/large';
import { partLight } from '@/core/render/parting';
import { FIREFLY } from '@/core/render/picture';
import type { PreparedScene } from '@/core/render/prepared';
import { cameraOf } from '@/core/render/shot';
import { meterExposure } from '@/core/render/tone';
import type { Finished } from '@/core/render/trace-job';
import { Tracer } from '@/core/render/tracer';
import { PrintPicture } from '@/server/jobs/print-picture';

/** What is asked for. */
export interface Wanted {
  model: Model;
  scene: PreparedScene;
  shot: Shot;
  width: number;
  height: number;
  samples: number;
  /** Whether the grain stays in. */
  grain: boolean;
  /** EV at ISO 100; metered where it is null. */
  exposure: number | null;
  /** K */
  white: number;
}

/** Files a picture is written to. */
export interface Outputs {
  png: string;
  hdr?: string;
  exr?: string;
}

type Save = (file: string, bytes: Uint8Array) => Promise<void>;

/** Traces a picture and writes it; what is larger than is traced in one piece goes through bands of rows, with bounded memory. */
export async function renderTo(wanted: Wanted, out: Outputs, save: Save): Promise<void> {
  if (isLarge(wanted)) return renderLarge(wanted, out, save);
  const { model, scene, shot, width, height, samples, grain, exposure, white } = wanted;
  const tracer = new Tracer(scene, { width, height, camera: cameraOf(model, shot), seed: 1, clamp: FIREFLY });
  for (let i = 0; i < samples; i++) tracer.pass();
  const film = new Film(tracer.exposed());
  const clean = (light: Float32Array, guides: Float32Array): Promise<Float32Array> =>
    grain ? Promise.resolve(light) : cleanPicture(light, guides, width, height, { round: shot.round });
  const radiance = await clean(film.mean(), film.guides());
  await save(out.png, writePng(develop(radiance, exposure ?? meterExposure(radiance), white), width, height));
  if (out.hdr) await save(out.hdr, writeHdr(radiance, width, height));
  if (!out.exr) return;
  const shares = await partLight(film, scene.groups, clean);
  await save(out.exr, writeLight({ width, height, radiance, shares }, film.passes()));
}

async function renderLarge({ model, scene, shot, width, height, samples, grain, exposure, white }: Wanted, out: Outputs, save: Save): Promise<void> {
  const camera = cameraOf(model, shot);
  const workshop: LargeWorkshop = {
    hands(size, region) {
      let tracer: Tracer | null = null;
      return [
        {
          prepare() {
            tracer = new Tracer(scene, { ...size, camera, seed: 1, clamp: FIREFLY, ...(region ? { region } : {}) });
            return Promise.resolve(scene.groups);
          },
          pass: (number) => Promise.resolve(tracer!.pass(number)),
          exposed: () => Promise.resolve(tracer!.exposed()),
        },
      ];
    },
    clean: (radiance, guides, size, scale) =>
      grain ? Promise.resolve(radiance) : cleanPicture(radiance, guides, size.width, size.height, { round: shot.round, scale }),
  };
  const folder = await mkdtemp(path.join(tmpdir(), 'enstegon-'));
  try {
    const packed = new Packed({ width, height });
    const size = { width, height, samples };
    const stamp = { project: model.project.id, scheme: model.project.scheme, name: '', viewpoint: null };
    const finished = (await new LargeJob(
      stamp,
      size,
      workshop,
      packed,
      () => undefined,
      () => performance.now() / 1000,
    ).run())!;
    const full = path.join(folder, 'full.exr');
    await writeFile(full, packed.file(finished.blocks!));
    const small = writeLight({ ...smallSize(size), radiance: finished.radiance, shares: finished.shares }, finished.passes);
    const print = new PrintPicture({ ...AS_TRACED, width, height, exposure: exposure ?? finished.exposure, white }, small, full);
    await save(out.png, await (await print.shown()).png({ compressionLevel: 6 }).toBuffer());
    if (out.hdr) await save(out.hdr, await print.hdr());
    if (!out.exr) return;
    await save(out.exr, await print.exr());
    await save(passesFile(out.exr), small);
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

/** Where lights and passes of a picture for print are written: they are smaller than it. */
export const passesFile = (exr: string): string => exr.replace(/(\.exr)?$/i, '-passes.exr');

/** What is kept of a picture for print while it is made: bands as long as they are wanted, rows that are done packed. */
class Packed implements LargeStore {
  private readonly bands = new Map<number, RawRows>();
  private readonly rows: Uint8Array[] = [];
  constructor(private readonly size: { width: number; height: number }) {}

  small = (): Promise<Finished | null> => Promise.resolve(null);
  keepSmall = (): Promise<void> => Promise.resolve();
  band = (index: number): Promise<RawRows | null> => Promise.resolve(this.bands.get(index) ?? null);
  keepBand = (index: number, rows: RawRows): Promise<void> => Promise.resolve(void this.bands.set(index, rows));
  dropBand = (index: number): Promise<void> => Promise.resolve(void this.bands.delete(index));
  done = (): Promise<DoneRows | null> => Promise.resolve(null);
  pack(piece: number, from: number, { radiance, cover }: Pick<RawRows, 'radiance' | 'cover'>): Promise<number[]> {
    const { bytes, sizes } = packPrint(this.size, from, radiance, cover);
    this.rows[piece] = bytes;
    return Promise.resolve(sizes);
  }

  file(sizes: readonly number[]): Uint8Array {
    return Buffer.concat([printStart(this.size, sizes), ...this.rows]);
  }
}
