import fc from 'fast-check';
import { F64, f64, I32, i32, inRow, local, repeatWhile, unsigned } from './code';
import { Machine } from './machine';

const NO_IMPORTS = { asked: [], functions: {} };

describe('a machine', () => {
  it('runs a function that was put together of instructions, over its memory', () => {
    const machine = Machine.create()!;
    // adds up the numbers from the beginning of the memory to the byte `end`
    const [end, sum, at] = [0, 1, 2] as const;
    const add = machine.compiled<(end: number) => number>(NO_IMPORTS, {
      parameters: [I32],
      result: F64,
      locals: [F64, I32],
      body: inRow(
        repeatWhile(
          inRow(
            inRow(local.get(sum), local.get(at), f64.load(), f64.add, local.set(sum)),
            inRow(local.get(at), i32.const(8), i32.add, local.tee(at), local.get(end), i32.lessThan),
          ),
        ),
        local.get(sum),
      ),
    })!;
    const far = 100_000;
    machine.room(far).set([0.5, 2, -7]);
    expect(add(24)).toBe(-4.5);
    machine.room(far)[far - 1] = 10;
    expect(add(far * 8)).toBe(5.5);
  });

  it('takes whole and broken constants of any size', () => {
    const machine = Machine.create()!;
    fc.assert(
      fc.property(fc.maxSafeInteger(), fc.double({ noNaN: true }), (whole, broken) => {
        const small = whole | 0;
        const run = machine.compiled<() => number>(NO_IMPORTS, {
          parameters: [],
          result: F64,
          locals: [],
          body: inRow(i32.const(small), f64.ofTruth, f64.const(broken), f64.add),
        })!;
        expect(run()).toBe(small + broken);
      }),
      { numRuns: 200 },
    );
    // WebAssembly Core Specification, 5.2.2: the example of LEB128's own standard, DWARF 4, 7.6
    expect([2, 127, 128, 129, 12_857].map(unsigned)).toEqual([
      [2],
      [127],
      [128, 1],
      [129, 1],
      [57 + 128, 100],
    ]);
  });

  it('is not there where WebAssembly is missing, and gives no function where it is forbidden', () => {
    const there = globalThis.WebAssembly;
    try {
      const machine = Machine.create()!;
      Object.assign(globalThis, { WebAssembly: undefined });
      expect(Machine.create()).toBeNull();
      expect(
        machine.compiled(NO_IMPORTS, { parameters: [], result: F64, locals: [], body: [0x00, 0xff] }),
      ).toBeNull();
    } finally {
      Object.assign(globalThis, { WebAssembly: there });
    }
  });
});
