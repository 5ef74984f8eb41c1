import { fromBase64 } from '../../units/base64';
import { SPLITTING } from './kernel.generated';

interface Exports {
  splitBoxes(boxes: number, count: number, firstSolo: number, order: number, nodes: number): number;
}

/** Words of a box and of a node. */
const BOX = 8;
const NODE = 12;
const PAGE = 65536;
/** What the compiled part keeps for itself lies below. */
const START = 16384;

/** Boxes in a tree of halves; node 0 is the root. */
export class Halves {
  private constructor(
    private readonly floats: Float32Array,
    private readonly words: Uint32Array,
    /** Numbers of the boxes, those of a node beside each other. */
    readonly order: Uint32Array,
  ) {}

  /**
   * Splits boxes in two again and again, down to four or fewer, by the binned surface area heuristic.
   *
   * @param count how many
   * @param firstSolo boxes from this number on stand alone
   * @param fill writes the boxes: least corner, nothing, greatest corner, nothing, eight numbers each
   */
  static of(count: number, firstSolo: number, fill: (boxes: Float32Array) => void): Halves {
    const order = START + count * BOX * 4;
    const nodes = (order + count * 4 + 15) & ~15;
    const memory = new WebAssembly.Memory({ initial: Math.ceil((nodes + 2 * count * NODE * 4) / PAGE), maximum: PAGE });
    const { exports } = new WebAssembly.Instance(compiled(), { env: { memory, abort: () => undefined } });
    fill(new Float32Array(memory.buffer, START, count * BOX));
    const made = (exports as unknown as Exports).splitBoxes(START, count, firstSolo, order, nodes);
    return new Halves(
      new Float32Array(memory.buffer, nodes, made * NODE),
      new Uint32Array(memory.buffer, nodes, made * NODE),
      new Uint32Array(memory.buffer, order, count),
    );
  }

  /** The children of a node; null where it is a leaf. */
  children(node: number): [number, number] | null {
    const left = this.words[node * NODE + 8];
    return left ? [left, this.words[node * NODE + 9]] : null;
  }

  /** Numbers of the boxes in a node. */
  members(node: number): Uint32Array {
    const start = this.words[node * NODE + 3];
    return this.order.subarray(start, start + this.words[node * NODE + 7]);
  }

  /** One number of the box about a node. @param k 0 to 2: its least corner; 3 to 5: its greatest */
  side(node: number, k: number): number {
    return this.floats[node * NODE + k + (k > 2 ? 1 : 0)];
  }

  /** Half of the surface of the box about a node. */
  area(node: number): number {
    const length = (axis: number): number => this.side(node, axis + 3) - this.side(node, axis);
    const [x, y, z] = [length(0), length(1), length(2)];
    return x * y + y * z + z * x;
  }
}

let own: WebAssembly.Module | null = null;
const compiled = (): WebAssembly.Module => (own ??= new WebAssembly.Module(fromBase64(SPLITTING)));
