import fc from 'fast-check';
import { Machine } from '../../wasm';
import { codeOf, formulaValue, type Formula } from './code';
import { compileExpression } from './compile';
import { formulaRun, rowWidth, SHARED } from './machine-code';
import { OPERATIONS } from './operations';

const machine = Machine.create()!;

/** The result of compiled code for rows of inputs. */
function computed(formula: ReturnType<typeof codeOf>, rows: readonly (readonly number[])[], frame: number) {
  const width = rowWidth(formula);
  const size = width * rows.length;
  const memory = machine.room(size + rows.length);
  rows.forEach((row, i) => memory.set([...row, ...formula.constants], i * width));
  formulaRun(machine, formula)!(0, size * 8, size * 8, frame, frame / 24);
  return rows.map((_, i) => memory[size + i]!);
}

const number = fc.oneof(
  fc.double({ min: -400, max: 400 }),
  fc.constantFrom(0, -0, 1, -1, 0.5, 90, Number.NaN, Infinity, -Infinity),
);
const leaf: fc.Arbitrary<Formula> = fc.oneof(
  number.map((value): Formula => ({ is: 'number', value })),
  fc.nat(3).map((place): Formula => ({ is: 'input', place })),
);
const formulas = fc.letrec<{ formula: Formula }>((tie) => ({
  formula: fc.oneof(
    { maxDepth: 5, withCrossShrink: true },
    leaf,
    fc
      .tuple(fc.constantFrom(...OPERATIONS), fc.array(tie('formula'), { minLength: 3, maxLength: 3 }))
      .map(([operation, of]): Formula => ({ is: 'operation', operation, of })),
  ),
})).formula;

describe('a formula compiled for the processor', () => {
  it('gives the very numbers that its operations give one by one', () => {
    const rows = fc.array(fc.tuple(number, number), { minLength: 1, maxLength: 5 });
    fc.assert(
      fc.property(formulas, rows, number, (formula, inputs, frame) => {
        const code = codeOf(formula, SHARED + 2);
        const alone = inputs.map((row) => formulaValue(code, [frame, frame / 24, ...row]));
        expect(computed(code, inputs, frame)).toEqual(alone);
      }),
      { numRuns: 400 },
    );
  });

  it.each([
    ['smoothstep(2, 4, a)', 3, 0.5],
    ['mod(a, 3)', -1, 2],
    ['clamp(a, 0, 1)', 7, 1],
    ['hypot(a, 4)', 3, 5],
    ['atan2(a, 1)', 1, 45],
    ['a > 2 && !(a == 5) ? 1 : -1', 4, 1],
    ['frame', 0, 48],
    ['seconds + a', 1, 3],
  ])('%s at a = %s is %s', (text, a, value) => {
    const compiled = compileExpression(text, ['a']);
    if (!compiled.ok) throw new Error(compiled.message);
    expect(computed(compiled.value.code, [[a]], 48)[0]).toBeCloseTo(value, 12);
  });
});
