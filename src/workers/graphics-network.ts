import type { MakeRunner, Runner } from '@/core/render/denoiser/denoiser';
import { NET } from '@/core/render/denoiser/net';
import { Network } from '@/core/render/denoiser/network';
import type { Weights } from '@/core/render/denoiser/weights';

// Names of the standard’s flags; TypeScript’s own library has its types without them.
declare const GPUShaderStage: { readonly COMPUTE: number };
declare const GPUBufferUsage: Record<'STORAGE' | 'COPY_DST' | 'COPY_SRC' | 'MAP_READ' | 'UNIFORM', number>;
declare const GPUMapMode: { readonly READ: number };

/**
 * The layers, four channels to a value. A thread works out four outputs of four pixels beside each other: what it reads
 * serves three taps. What would lie beside another picture of half or whole size is read from both.
 */
const LAYERS = /* wgsl */ `
struct Step { width: u32, height: u32, first: u32, second: u32, halved: u32, weights: u32, bias: u32, outs: u32 }

@group(0) @binding(0) var<uniform> layer: Step;
@group(0) @binding(1) var<storage, read> first: array<vec4f>;
@group(0) @binding(2) var<storage, read> second: array<vec4f>;
@group(0) @binding(3) var<storage, read> weights: array<mat4x4f>;
@group(0) @binding(4) var<storage, read> bias: array<vec4f>;
@group(0) @binding(5) var<storage, read_write> result: array<vec4f>;

fn seen(x: i32, row: u32, by: u32, c: u32) -> vec4f {
  if (x < 0 || x >= i32(layer.width)) { return vec4f(); }
  return first[(row + u32(x) / by) * layer.first + c];
}

fn beside(x: i32, row: u32, c: u32) -> vec4f {
  if (x < 0 || x >= i32(layer.width)) { return vec4f(); }
  return second[(row + u32(x)) * layer.second + c];
}

// Four outputs of four pixels.
var<private> a0: vec4f;
var<private> a1: vec4f;
var<private> a2: vec4f;
var<private> a3: vec4f;

// Adds three taps of four inputs, of which six pixels are seen.
fn take(v0: vec4f, v1: vec4f, v2: vec4f, v3: vec4f, v4: vec4f, v5: vec4f, at: u32, inputs: u32) {
  let left = weights[at];
  let middle = weights[at + inputs];
  let right = weights[at + 2u * inputs];
  a0 += left * v0 + middle * v1 + right * v2;
  a1 += left * v1 + middle * v2 + right * v3;
  a2 += left * v2 + middle * v3 + right * v4;
  a3 += left * v3 + middle * v4 + right * v5;
}

@compute @workgroup_size(8, 8)
fn convolve(@builtin(global_invocation_id) id: vec3u) {
  let x0 = i32(id.x) * 4;
  let w = i32(layer.width);
  let h = i32(layer.height);
  if (x0 >= w || i32(id.y) >= h) { return; }
  let start = bias[layer.bias + id.z];
  a0 = start;
  a1 = start;
  a2 = start;
  a3 = start;
  let inputs = layer.first + layer.second;
  let by = u32(select(1, 2, layer.halved == 1u));
  for (var ky = 0; ky < 3; ky++) {
    let y = i32(id.y) + ky - 1;
    if (y < 0 || y >= h) { continue; }
    let taps = layer.weights + (id.z * 9u + u32(ky) * 3u) * inputs;
    let rowFirst = (u32(y) / by) * (layer.width / by);
    let rowSecond = u32(y) * layer.width;
    for (var c = 0u; c < layer.first; c++) {
      take(seen(x0 - 1, rowFirst, by, c), seen(x0, rowFirst, by, c), seen(x0 + 1, rowFirst, by, c),
        seen(x0 + 2, rowFirst, by, c), seen(x0 + 3, rowFirst, by, c), seen(x0 + 4, rowFirst, by, c), taps + c, inputs);
    }
    for (var c = 0u; c < layer.second; c++) {
      take(beside(x0 - 1, rowSecond, c), beside(x0, rowSecond, c), beside(x0 + 1, rowSecond, c),
        beside(x0 + 2, rowSecond, c), beside(x0 + 3, rowSecond, c), beside(x0 + 4, rowSecond, c), taps + layer.first + c, inputs);
    }
  }
  let at = u32(i32(id.y) * w + x0) * layer.outs + id.z;
  result[at] = max(a0, vec4f());
  if (x0 + 1 < w) { result[at + layer.outs] = max(a1, vec4f()); }
  if (x0 + 2 < w) { result[at + 2u * layer.outs] = max(a2, vec4f()); }
  if (x0 + 3 < w) { result[at + 3u * layer.outs] = max(a3, vec4f()); }
}

@compute @workgroup_size(8, 8)
fn pool(@builtin(global_invocation_id) id: vec3u) {
  if (id.x >= layer.width || id.y >= layer.height) { return; }
  let row = layer.width * 2u * layer.outs;
  let at = id.y * 2u * row + id.x * 2u * layer.outs + id.z;
  result[(id.y * layer.width + id.x) * layer.outs + id.z] =
    max(max(first[at], first[at + layer.outs]), max(first[at + row], first[at + row + layer.outs]));
}
`;

const quarter = (channels: number): number => Math.ceil(channels / 4);

interface Placed {
  /** Where a layer's weights begin, in matrices, and its biases, in fours. */
  weights: number;
  bias: number;
  outs: number;
}

/** Weights as matrices of four outputs by four inputs: outputs by four, tap by tap, inputs by four. What fills up a four is nothing. */
function layOut(all: Weights): { matrices: Float32Array<ArrayBuffer>; biases: Float32Array<ArrayBuffer>; of: Map<string, Placed> } {
  const of = new Map<string, Placed>();
  let [matrix, four] = [0, 0];
  const layers = NET.flatMap((node) => (node.op === 'convolve' ? [node.id] : []));
  for (const id of layers) {
    const [outputs, inputs] = all.get(`${id}.weight`)!.dims;
    of.set(id, { weights: matrix, bias: four, outs: quarter(outputs) });
    matrix += quarter(outputs) * 9 * quarter(inputs);
    four += quarter(outputs);
  }
  const [matrices, biases] = [new Float32Array(matrix * 16), new Float32Array(four * 4)];
  for (const id of layers) {
    const { dims, data } = all.get(`${id}.weight`)!;
    const [outputs, inputs] = dims;
    const at = of.get(id)!;
    const ins = quarter(inputs);
    for (let o = 0; o < outputs; o++)
      for (let c = 0; c < inputs; c++)
        for (let tap = 0; tap < 9; tap++)
          matrices[(at.weights + ((o >> 2) * 9 + tap) * ins + (c >> 2)) * 16 + (c & 3) * 4 + (o & 3)] = data[(o * inputs + c) * 9 + tap];
    biases.set(all.get(`${id}.bias`)!.data, at.bias * 4);
  }
  return { matrices, biases, of };
}

interface Pass {
  pipeline: GPUComputePipeline;
  binding: GPUBindGroup;
  groups: readonly [number, number, number];
}

/** The denoising network for pictures of one size on the graphics card, to rounding what it is on the processor. */
class GraphicsNetwork implements Runner {
  readonly channels: number;
  private readonly passes: Pass[] = [];
  private readonly buffers: GPUBuffer[] = [];
  private readonly input: GPUBuffer;
  private readonly result: GPUBuffer;
  private readonly back: GPUBuffer;

  constructor(
    private readonly device: GPUDevice,
    weights: Weights,
    readonly width: number,
    readonly height: number,
  ) {
    this.channels = weights.get('enc_conv0.weight')!.dims[1];
    const { matrices, biases, of } = layOut(weights);
    const module = device.createShaderModule({ code: LAYERS });
    const layout = device.createBindGroupLayout({
      entries: (['uniform', 'read-only-storage', 'read-only-storage', 'read-only-storage', 'read-only-storage', 'storage'] as const).map((type, binding) => ({
        binding,
        visibility: GPUShaderStage.COMPUTE,
        buffer: { type },
      })),
    });
    const pipelineOf = (entryPoint: string): GPUComputePipeline =>
      device.createComputePipeline({ layout: device.createPipelineLayout({ bindGroupLayouts: [layout] }), compute: { module, entryPoint } });
    const [convolve, pool] = [pipelineOf('convolve'), pipelineOf('pool')];
    const { STORAGE, COPY_DST, COPY_SRC, MAP_READ, UNIFORM } = GPUBufferUsage;
    const buffer = (size: number, usage: number): GPUBuffer => {
      const made = device.createBuffer({ size, usage });
      this.buffers.push(made);
      return made;
    };
    const filled = (values: Float32Array<ArrayBuffer> | Uint32Array<ArrayBuffer>, usage: number): GPUBuffer => {
      const made = buffer(values.byteLength, usage | COPY_DST);
      device.queue.writeBuffer(made, 0, values);
      return made;
    };
    const [held, offsets] = [filled(matrices, STORAGE), filled(biases, STORAGE)];

    // Pictures that are no longer wanted give their room to later ones.
    const joined = new Map(NET.flatMap((node) => (node.op === 'join' ? [[node.id, node] as const] : [])));
    const sources = (id: string): string[] => {
      const pair = joined.get(id);
      return pair ? [pair.of, pair.with] : [id];
    };
    const steps = NET.filter((node) => node.op !== 'join');
    const last = new Map<string, number>();
    steps.forEach((node, i) => sources(node.of).forEach((id) => last.set(id, i)));
    const free: GPUBuffer[] = [];
    const pictures = new Map<string, { buffer: GPUBuffer; fours: number; level: number }>();
    const make = (id: string, fours: number, level: number): GPUBuffer => {
      const size = (width >> level) * (height >> level) * fours * 16;
      const fits = free.filter((b) => b.size >= size && b.size <= 4 * size).sort((a, b) => a.size - b.size)[0];
      if (fits) free.splice(free.indexOf(fits), 1);
      const made = fits ?? buffer(size, STORAGE | COPY_SRC | COPY_DST);
      pictures.set(id, { buffer: made, fours, level });
      return made;
    };
    this.input = make('input', quarter(this.channels), 0);
    steps.forEach((node, i) => {
      const [from, beside] = sources(node.of).map((id) => pictures.get(id)!);
      const level = node.op === 'pool' ? from.level + 1 : beside ? beside.level : from.level;
      const own = of.get(node.id);
      const outs = own?.outs ?? from.fours;
      const [w, h] = [width >> level, height >> level];
      const to = make(node.id, outs, level);
      const about = new Uint32Array([w, h, from.fours, beside?.fours ?? 0, beside ? 1 : 0, own?.weights ?? 0, own?.bias ?? 0, outs]);
      const entries = [filled(about, UNIFORM), from.buffer, beside?.buffer ?? from.buffer, held, offsets, to].map((b, binding) => ({
        binding,
        resource: { buffer: b },
      }));
      this.passes.push({
        pipeline: node.op === 'pool' ? pool : convolve,
        binding: device.createBindGroup({ layout, entries }),
        groups: [Math.ceil((node.op === 'pool' ? w : Math.ceil(w / 4)) / 8), Math.ceil(h / 8), outs],
      });
      for (const id of sources(node.of)) if (last.get(id) === i) free.push(pictures.get(id)!.buffer);
    });
    const final = pictures.get(NET[NET.length - 1].id)!;
    this.result = final.buffer;
    this.back = buffer(width * height * 16, MAP_READ | COPY_DST);
  }

  async run(input: Float32Array): Promise<Float32Array> {
    const { width, height, channels, device } = this;
    const fours = quarter(channels) * 4;
    const padded = new Float32Array(width * height * fours);
    for (let p = 0; p < width * height; p++) for (let c = 0; c < channels; c++) padded[p * fours + c] = input[p * channels + c];
    device.queue.writeBuffer(this.input, 0, padded);
    // A layer at a time: the screen is drawn between them.
    for (const { pipeline, binding, groups } of this.passes) {
      const encoder = device.createCommandEncoder();
      const pass = encoder.beginComputePass();
      pass.setPipeline(pipeline);
      pass.setBindGroup(0, binding);
      pass.dispatchWorkgroups(...groups);
      pass.end();
      device.queue.submit([encoder.finish()]);
    }
    const encoder = device.createCommandEncoder();
    encoder.copyBufferToBuffer(this.result, 0, this.back, 0, width * height * 16);
    device.queue.submit([encoder.finish()]);
    await this.back.mapAsync(GPUMapMode.READ);
    const values = new Float32Array(this.back.getMappedRange());
    const out = new Float32Array(width * height * 3);
    for (let p = 0; p < width * height; p++) for (let c = 0; c < 3; c++) out[p * 3 + c] = values[p * 4 + c];
    this.back.unmap();
    return out;
  }

  close(): void {
    for (const b of this.buffers) b.destroy();
  }
}

/** Results of both ways, 0 to 1, lie no further apart than this. */
export const GRAPHICS_ERROR = 1e-4;

/** A picture both ways can be held against each other with: bright, dark and even places in every channel. */
const PROBE = { width: 48, height: 32 };
const probe = (channels: number): Float32Array =>
  Float32Array.from({ length: PROBE.width * PROBE.height * channels }, (_, i) => (i % 97 < 40 ? 0.5 + 0.5 * Math.sin(i * 12.9898) : (i % 7) / 7));

/**
 * The network on the graphics card, or null where there is none, it is imitated by the processor, or it does not give
 * what the processor gives.
 *
 * @param imitated whether a card that the processor imitates will do: it is slower than our own way
 */
export async function graphicsRunner(weights: Weights, imitated = false): Promise<MakeRunner | null> {
  try {
    const adapter = await navigator.gpu?.requestAdapter({ powerPreference: 'high-performance' });
    if (!adapter || (adapter.info.isFallbackAdapter && !imitated)) return null;
    const { maxStorageBufferBindingSize, maxBufferSize } = adapter.limits;
    const device = await adapter.requestDevice({ requiredLimits: { maxStorageBufferBindingSize, maxBufferSize } });
    let kept: GraphicsNetwork | null = null;
    const make: MakeRunner = (w, width, height) => {
      if (kept?.width === width && kept.height === height) return kept;
      kept?.close();
      return (kept = new GraphicsNetwork(device, w, width, height));
    };
    device.pushErrorScope('validation');
    const { width, height } = PROBE;
    const network = make(weights, width, height);
    const input = probe(network.channels);
    const got = await network.run(input);
    if (await device.popErrorScope()) return null;
    const wanted = new Network(weights, width, height).run(input);
    return got.every((v, i) => Math.abs(v - wanted[i]) < GRAPHICS_ERROR) ? make : null;
  } catch {
    return null;
  }
}
