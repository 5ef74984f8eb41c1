/**
 * The few platform features the core may use, declared here because the core is
 * compiled without the DOM and Node libraries. Browsers, workers and Node have them all.
 * Only `tsconfig.core.json` reads this file.
 */
interface AbortSignal {
  readonly aborted: boolean;
  throwIfAborted(): void;
}
declare class TextEncoder {
  encode(text: string): Uint8Array<ArrayBuffer>;
}
declare class TextDecoder {
  decode(bytes: Uint8Array): string;
}
declare namespace WebAssembly {
  class Module {
    constructor(bytes: ArrayBufferView | ArrayBuffer);
  }
  class Instance {
    constructor(module: Module, imports?: Record<string, Record<string, unknown>>);
    readonly exports: Record<string, unknown>;
  }
  class Memory {
    constructor(descriptor: { initial: number; maximum?: number });
    readonly buffer: ArrayBuffer;
    grow(pages: number): number;
  }
}
