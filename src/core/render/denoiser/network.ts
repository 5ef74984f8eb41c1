import { fromBase64 } from '../../units/base64';
import { LAYERS } from './kernel.generated';
import { NET, type Node } from './net';
import type { Weights } from './weights';

interface Layers {
  convolve(inp: number, cin: number, weights: number, bias: number, out: number, cout: number, width: number, height: number): void;
  pool(inp: number, c: number, out: number, width: number, height: number): void;
  join(half: number, ca: number, whole: number, cb: number, out: number, width: number, height: number): void;
}

const PAGE = 65536;

/** Room in one memory, given and taken back: the first gap that is large enough. */
class Room {
  private free: { at: number; size: number }[];
  end: number;

  constructor(from: number) {
    this.free = [{ at: from, size: 2 ** 32 - from }];
    this.end = from;
  }

  take(bytes: number): { at: number; size: number } {
    const size = (bytes + 255) & ~255;
    const gap = this.free.find((f) => f.size >= size)!;
    const taken = { at: gap.at, size };
    gap.at += size;
    gap.size -= size;
    this.end = Math.max(this.end, taken.at + size);
    return taken;
  }

  give(block: { at: number; size: number }): void {
    const sorted = [...this.free, block].sort((a, b) => a.at - b.at);
    this.free = sorted.reduce<{ at: number; size: number }[]>((out, b) => {
      const last = out.at(-1);
      if (last && last.at + last.size === b.at) last.size += b.size;
      else out.push({ ...b });
      return out;
    }, []);
  }
}

interface Step {
  node: Node;
  at: number;
  other: number;
  to: number;
  /** Channels that come in, of the other picture, and that go out. */
  channels: number;
  beside: number;
  out: number;
  weights: number;
  bias: number;
  width: number;
  height: number;
}

/**
 * The denoising network for pictures of one size, in a WebAssembly memory of its own. Weights lie in blocks of eight
 * outputs; pictures of the layers share their room where one is no longer wanted.
 */
export class Network {
  private readonly memory = new WebAssembly.Memory({ initial: 16, maximum: PAGE });
  private readonly layers: Layers;
  private readonly steps: Step[] = [];
  private readonly inputAt: number;
  private readonly outputAt: number;
  private readonly outputChannels: number;
  /** Channels of the input. */
  readonly channels: number;

  /** @param width pixels, a multiple of 16 @param height the same */
  constructor(
    weights: Weights,
    readonly width: number,
    readonly height: number,
  ) {
    if (width % 16 || height % 16) throw new RangeError('the sides of the picture are multiples of 16');
    const module = new WebAssembly.Module(fromBase64(LAYERS));
    this.layers = new WebAssembly.Instance(module, { env: { memory: this.memory, abort: () => undefined } }).exports as unknown as Layers;
    this.channels = weights.get('enc_conv0.weight')!.dims[1];
    const placed = this.placeWeights(weights);
    const room = new Room(placed.end);
    const last = new Map<string, number>();
    NET.forEach((node, i) => {
      last.set(node.of, i);
      if (node.op === 'join') last.set(node.with, i);
    });
    const pictures = new Map<string, { at: number; size: number; channels: number; level: number }>();
    const make = (id: string, channels: number, level: number): { at: number } => {
      const block = room.take(((width >> level) + 2) * ((height >> level) + 2) * channels * 4);
      pictures.set(id, { ...block, channels, level });
      return block;
    };
    this.inputAt = make('input', this.channels, 0).at;
    NET.forEach((node, i) => {
      const from = pictures.get(node.of)!;
      const beside = node.op === 'join' ? pictures.get(node.with)! : null;
      const own = placed.of.get(node.id);
      const level = from.level + (node.op === 'pool' ? 1 : node.op === 'join' ? -1 : 0);
      const out = own?.out ?? from.channels + (beside?.channels ?? 0);
      this.steps.push({
        node,
        at: from.at,
        other: beside?.at ?? 0,
        to: make(node.id, out, level).at,
        channels: from.channels,
        beside: beside?.channels ?? 0,
        out,
        weights: own?.weights ?? 0,
        bias: own?.bias ?? 0,
        width: width >> level,
        height: height >> level,
      });
      for (const id of node.op === 'join' ? [node.of, node.with] : [node.of]) if (last.get(id) === i) room.give(pictures.get(id)!);
    });
    const final = pictures.get(NET[NET.length - 1].id)!;
    [this.outputAt, this.outputChannels] = [final.at, final.channels];
    this.reach(room.end);
  }

  /** Bytes it takes. */
  get bytes(): number {
    return this.memory.buffer.byteLength;
  }

  private reach(end: number): void {
    const more = Math.ceil(end / PAGE) - this.memory.buffer.byteLength / PAGE;
    if (more > 0) this.memory.grow(more);
  }

  private placeWeights(weights: Weights): { of: Map<string, { weights: number; bias: number; out: number }>; end: number } {
    let at = 4096;
    const of = new Map<string, { weights: number; bias: number; out: number }>();
    for (const node of NET) {
      if (node.op !== 'convolve') continue;
      const { dims, data } = weights.get(`${node.id}.weight`)!;
      const bias = weights.get(`${node.id}.bias`)!.data;
      const [outputs, inputs] = dims;
      // Outputs that fill up the last block are always nothing.
      const out = (outputs + 7) & ~7;
      const [w, b] = [at, at + out * inputs * 36];
      at = (b + out * 4 + 63) & ~63;
      this.reach(at);
      const into = new Float32Array(this.memory.buffer, w, out * inputs * 9);
      for (let o = 0; o < outputs; o++)
        for (let c = 0; c < inputs; c++)
          for (let tap = 0; tap < 9; tap++) into[(((o >> 3) * 9 + tap) * inputs + c) * 8 + (o & 7)] = data[(o * inputs + c) * 9 + tap];
      new Float32Array(this.memory.buffer, b, out).set(bias);
      of.set(node.id, { weights: w, bias: b, out });
    }
    return { of, end: (at + 255) & ~255 };
  }

  /** Zeros round a picture: its room held another one before. */
  private border(at: number, channels: number, width: number, height: number): void {
    const row = (width + 2) * channels;
    const all = new Float32Array(this.memory.buffer, at, row * (height + 2));
    all.fill(0, 0, row);
    all.fill(0, (height + 1) * row);
    for (let y = 1; y <= height; y++) {
      all.fill(0, y * row, y * row + channels);
      all.fill(0, (y + 1) * row - channels, (y + 1) * row);
    }
  }

  /**
   * Runs the network.
   *
   * @param input all channels of a pixel together, row by row
   * @returns three values a pixel
   */
  run(input: Float32Array): Float32Array<ArrayBuffer> {
    const { width, height, channels, layers } = this;
    this.border(this.inputAt, channels, width, height);
    for (let y = 0; y < height; y++)
      new Float32Array(this.memory.buffer, this.inputAt + ((y + 1) * (width + 2) + 1) * channels * 4, width * channels).set(
        input.subarray(y * width * channels, (y + 1) * width * channels),
      );
    for (const s of this.steps) {
      this.border(s.to, s.out, s.width, s.height);
      if (s.node.op === 'convolve') layers.convolve(s.at, s.channels, s.weights, s.bias, s.to, s.out, s.width, s.height);
      else if (s.node.op === 'pool') layers.pool(s.at, s.channels, s.to, s.width, s.height);
      else layers.join(s.at, s.channels, s.other, s.beside, s.to, s.width, s.height);
    }
    const out = new Float32Array(width * height * 3);
    const n = this.outputChannels;
    const view = new Float32Array(this.memory.buffer, this.outputAt, (width + 2) * (height + 2) * n);
    for (let y = 0, k = 0; y < height; y++)
      for (let x = 0; x < width; x++) for (let c = 0; c < 3; c++) out[k++] = view[((y + 1) * (width + 2) + x + 1) * n + c];
    return out;
  }
}
