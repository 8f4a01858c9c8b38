import { moduleBytes, type Imported, type ModuleFunction } from './module';

const PAGE = 65_536;

/** What is used of WebAssembly, which is there in pages, workers and Node alike but belongs to none of their type libraries. */
interface Engine {
  readonly Memory: new (size: { readonly initial: number }) => Memory;
  readonly Module: new (bytes: Uint8Array<ArrayBuffer>) => object;
  readonly Instance: new (
    module: object,
    imports: Readonly<Record<string, Readonly<Record<string, unknown>>>>,
  ) => { readonly exports: Readonly<Record<string, unknown>> };
}
interface Memory {
  readonly buffer: ArrayBuffer;
  grow(pages: number): number;
}

/** A function made for imports, with how many numbers it takes. */
export interface Imports {
  readonly asked: readonly Imported[];
  readonly functions: Readonly<Record<string, (...numbers: number[]) => number>>;
}

/**
 * A memory and the functions compiled over it. What lies in it belongs to whoever filled it last: see `owner`. Null where the
 * surroundings have no WebAssembly or forbid it, such as a page under a policy without `wasm-unsafe-eval`.
 */
export class Machine {
  /** Whoever has laid something in the memory that is to stay there. */
  owner: object | null = null;
  private numbers = new Float64Array(0);

  private constructor(
    private readonly engine: Engine,
    private readonly memory: Memory,
  ) {}

  static create(): Machine | null {
    const engine = (globalThis as { readonly WebAssembly?: Engine }).WebAssembly;
    if (!engine) return null;
    try {
      return new Machine(engine, new engine.Memory({ initial: 1 }));
    } catch {
      return null;
    }
  }

  /** The memory as numbers, at least so many of them. What was got before is of no use once it had to grow. */
  room(count: number): Float64Array<ArrayBuffer> {
    const more = Math.ceil((count * 8) / PAGE) - this.memory.buffer.byteLength / PAGE;
    if (more > 0) this.memory.grow(more);
    if (this.numbers.buffer !== this.memory.buffer) this.numbers = new Float64Array(this.memory.buffer);
    return this.numbers;
  }

  /** A function compiled over this memory; null where that is forbidden. */
  compiled<Run>({ asked, functions }: Imports, made: ModuleFunction): Run | null {
    try {
      const module = new this.engine.Module(moduleBytes(asked, made));
      const { exports } = new this.engine.Instance(module, { env: { memory: this.memory, ...functions } });
      return exports['run'] as Run;
    } catch {
      return null;
    }
  }
}
