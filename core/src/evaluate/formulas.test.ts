import { NOT_FINITE } from '../project';
import { programOf, slotOf, testProject } from '../../testing/project';

/** Wagons with a formula each: all of one shape, every fifth muted, every third added to what is there, one without a result. */
function wagons(count: number) {
  const parts = Array.from({ length: count }, (_, i) => ({
    id: `wagon-${i}`,
    name: `Wagon ${i}`,
    kind: 'group',
    custom: [
      { name: 'throttle', value: i / 8 },
      { name: 'steam', value: 3 },
    ],
  }));
  return testProject({
    parts,
    drivers: parts.map(({ id }, i) => ({
      id: `d${i}`,
      target: `${id}/custom.steam`,
      kind: 'expression',
      inputs: { x: `${id}/custom.throttle` },
      expression: `sqrt(x - ${i === 7 ? 90 : -1}) * ${i} + sin(frame * ${i})`,
      combine: i % 3 === 0 ? 'add' : 'replace',
      muted: i % 5 === 0,
    })),
  });
}

describe('formulas of one shape', () => {
  it.each([12, 31, 32, 300])('%i of them give together what each gives alone', (count) => {
    const program = programOf(wagons(count));
    const out = program.createOutput();
    for (const frame of [0, 17.5, -4]) {
      program.run(frame, out);
      for (let i = 0; i < count; i++) {
        const slot = slotOf(program, `wagon-${i}/custom.steam`);
        expect(out.channels[slot]).toBe(program.channelValue(slot, frame));
        if (i % 5 === 0 || i === 7) expect(out.channels[slot]).toBe(3);
        else
          expect(out.channels[slot]).toBeCloseTo(
            (i % 3 === 0 ? 3 : 0) + Math.sqrt(i / 8 + 1) * i + Math.sin((frame * i * Math.PI) / 180),
            10,
          );
      }
      expect([...out.failed].flatMap((reason, i) => (reason > 0 ? [[i, reason]] : []))).toEqual([
        [7, NOT_FINITE],
      ]);
    }
  });
});
