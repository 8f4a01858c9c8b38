import fc from 'fast-check';
import { compile } from '../evaluate';
import { programOf, slotOf, testProject, valueAt } from '../../testing/project';
import { differenceOf, expectClose } from '../../testing/rates';
import { FAILURES } from '../project';
import { compileExpression, formulaValue } from './index';

const ENV = Float64Array.of(7, 0.5, 3, -2);
function evaluate(text: string): number {
  const compiled = compileExpression(text, ['x', 'y']);
  if (!compiled.ok) throw new Error(compiled.message);
  return formulaValue(compiled.value.code, ENV);
}
function refusal(text: string, names = ['x', 'y']): string {
  const compiled = compileExpression(text, names);
  return compiled.ok ? 'accepted' : compiled.message;
}

describe('expressions', () => {
  it.each([
    ['1 + 2 * 3', 7],
    ['-x / 2 - -y', -3.5],
    ['(1 + 2) * -x', -9],
    ['.5 + 1e2 + 2.5E-1', 100.75],
    ['frame * 10 + seconds', 70.5],
    ['x > 2 && y < 0', 1],
    ['!x || y == -2', 1],
    ['x != 3 ? 1 : y <= -2 ? 5 : 6', 5],
    ['1 < 2 == 1', 1],
    ['0 / 0 || 1 ? 2 : 3', 2],
    ['x > 0 ? x : 1 / 0', 3],
    ['min(4, x, y) + max(x) ', 1],
    ['abs(y) + sign(y) + floor(-2.5) + ceil(-2.5) + round(-2.5) + round(2.5)', 2 - 1 - 3 - 2 - 2 + 3],
    ['sqrt(16) + pow(2, 10) + exp(0) + log(1)', 1029],
    ['sin(30) + cos(60) + tan(45)', 2],
    ['asin(1) + acos(0) + atan(1) + atan2(1, -1)', 90 + 90 + 45 + 135],
    ['hypot(3, 4) + clamp(9, 0, 5) + mix(2, 4, 0.25)', 12.5],
    ['smoothstep(0, 4, 1)', 0.15625],
    ['mod(-1, 360) + mod(370, 360) + mod(5, -3)', 359 + 10 - 1],
    ['2 * pi', 2 * Math.PI],
  ])('%s', (text, expected) => expectClose(evaluate(text), expected, 1e-14));

  it.each([
    ['', /empty/],
    ['x +', /can't be read/],
    ['z + 1', /"z" is neither an input/],
    ['foo(1)', /"foo" is no function/],
    ['sqrt()', /0 arguments; it must have 1/],
    ['x ^ 2', /./],
    ['x = 2', /./],
    ['"a" + 1', /no number/],
    ['01 + 2', /01 is no number/],
    ['x.y', /besides numbers/],
    ['[1]', /besides numbers/],
    ['1; 2', /besides numbers|can't be read/],
    ['x % 2', /./],
    ['('.repeat(30000) + '1' + ')'.repeat(30000), /nested too deeply/],
  ])('refuses %.20s', (text, message) => expect(refusal(text)).toMatch(message));

  it('refuses an input with a built-in name', () => {
    expect(refusal('sin + 1', ['sin'])).toMatch(/built-in/);
  });

  it('has exact rates for every function', () => {
    const texts = [
      'x*x*x - 2*x/(1+y*y)',
      'sqrt(2+x*y*y) + pow(2+x, 1.5) + pow(1.5, x) + exp(x) + log(3+x)',
      'sin(40*x) + cos(30*y) * tan(20*x)',
      'asin(x/3) + acos(y/3) + atan(x*y) + atan2(y+3, x-2)',
      'hypot(x+2, y+1) + abs(x-5) + min(x, y+8) + max(x-9, y) + clamp(x, -9, 9) + mix(x, y, x*y)',
      'smoothstep(-2, 2, x) + mod(x*50, 7) + (x > -9 ? x*x : 0) + floor(x) + !y',
    ];
    fc.assert(
      fc.property(fc.constantFrom(...texts), fc.double({ min: 0.11, max: 0.87, noNaN: true }), (text, s) => {
        // Where mod(x*50, 7) jumps, differences are none.
        const turn = (Math.sin(s) * 50) / 7;
        fc.pre(Math.abs(turn - Math.round(turn)) > 0.01);
        const compiled = compileExpression(text, ['x', 'y']);
        if (!compiled.ok) throw new Error(compiled.message);
        const at = (t: number) =>
          compiled.value.jet([
            [t, 1, 0, 0],
            [t, 1, 0, 0],
            [Math.sin(t), Math.cos(t), -Math.sin(t), -Math.cos(t)],
            [t * t, 2 * t, 2, 0],
          ]);
        const [, d1, d2, d3] = at(s);
        const [n1, n2, n3] = differenceOf(at, s, 1e-4);
        expectClose(d1, n1, 1e-6);
        expectClose(d2, n2, 1e-6);
        expectClose(d3, n3, 1e-5);
      }),
    );
  });
});

const LINEAR = { in: { mode: 'linear' }, out: { mode: 'linear' } };
const TURN = {
  channel: 'wagon/rotate.y',
  keys: [
    { frame: 0, value: 0, ...LINEAR },
    { frame: 24, value: 360, ...LINEAR },
  ],
  after: { mode: 'loop-carry' },
};

describe('linkages', () => {
  const crank = (output: string, params: object) =>
    testProject(
      {
        drivers: [
          {
            id: 'd',
            target: 'wagon/translate.x',
            kind: 'linkage',
            linkage: 'slider-crank',
            inputs: { angle: 'wagon/rotate.y' },
            output,
            params,
          },
        ],
      },
      [TURN],
    );

  // The stroke and dead centres of an offset slider-crank by Pythagoras: (l ± r)² − e².
  it('a slider-crank reaches its dead centres', () => {
    const params = { crank: 0.3, rod: 0.95, offset: 0.08 };
    const far = Math.sqrt((0.95 + 0.3) ** 2 - 0.08 ** 2);
    const near = Math.sqrt((0.95 - 0.3) ** 2 - 0.08 ** 2);
    const slide = (angle: number) => valueAt(crank('slide', params), 'wagon/translate.x', (angle / 360) * 24);
    expectClose(slide((Math.asin(0.08 / 1.25) * 180) / Math.PI), far, 1e-12);
    expectClose(slide(180 + (Math.asin(0.08 / 0.65) * 180) / Math.PI), near, 1e-12);
    expectClose(far, 1.2474, 1e-4);
    expectClose(near, 0.6451, 1e-4);
  });

  it('its rod has the length it should at every angle', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 2000, noNaN: true }), (frame) => {
        const params = { crank: 0.3, rod: 0.95, offset: 0.08 };
        const slide = valueAt(crank('slide', params), 'wagon/translate.x', frame);
        const rod = (valueAt(crank('rod', params), 'wagon/translate.x', frame) * Math.PI) / 180;
        const angle = (frame / 24) * 2 * Math.PI;
        expectClose(0.3 * Math.cos(angle) + 0.95 * Math.cos(rod), slide, 1e-10);
        expectClose(0.3 * Math.sin(angle) + 0.95 * Math.sin(rod), 0.08, 1e-10);
      }),
    );
  });

  it('out of reach leaves the channel as it was, and tells', () => {
    const project = crank('slide', { crank: 2, rod: 1 });
    const program = programOf(project);
    const out = program.createOutput();
    program.run(6, out);
    expect(out.channels[slotOf(program, 'wagon/translate.x')]).toBe(0);
    expect([...out.failed].map((reason) => FAILURES[reason])).toEqual(['out of reach: too far']);
    program.run(0, out);
    expect([...out.failed]).toEqual([0]);
  });

  it('has the exact speed of the slide', () => {
    const program = programOf(crank('slide', { crank: 0.3, rod: 0.95, offset: 0.08 }));
    const slot = slotOf(program, 'wagon/translate.x');
    const inSeconds = (s: number) => program.channelRates(slot, s * 24);
    const [, v, a, j] = inSeconds(0.4);
    const [n1, n2, n3] = differenceOf(inSeconds, 0.4, 1e-4);
    expectClose(v, n1, 1e-7);
    expectClose(a, n2, 1e-6);
    expectClose(j, n3, 1e-5);
  });

  it('a wheel rolls without slip', () => {
    const project = testProject(
      {
        drivers: [
          {
            id: 'd',
            target: 'wagon/rotate.x',
            kind: 'linkage',
            linkage: 'wheel',
            inputs: { distance: 'wagon/translate.x' },
            output: 'angle',
            params: { radius: 0.5, direction: -1 },
          },
        ],
      },
      [{ channel: 'wagon/translate.x', keys: [{ frame: 0, value: Math.PI }] }],
    );
    expectClose(valueAt(project, 'wagon/rotate.x', 3), -360, 1e-13);
  });

  it.each([
    [{ linkage: 'gear', output: 'angle' }, '/drivers/0/params/teethIn', /a number "teethIn"/],
    [{ output: 'spin' }, '/drivers/0/output', /no output "spin"/],
    [{ inputs: {} }, '/drivers/0/inputs/angle', /missing/],
    [{ params: { crank: 1 } }, '/drivers/0/params/rod', /a number "rod"/],
    [{ params: { crank: 0, rod: 1 } }, '/drivers/0/params/crank', /more than 0/],
  ])('refuses %j', (change, pointer, message) => {
    const driver = {
      id: 'd',
      target: 'wagon/translate.x',
      kind: 'linkage',
      linkage: 'slider-crank',
      inputs: { angle: 'wagon/rotate.y' },
      output: 'slide',
      params: { crank: 1, rod: 2 },
      ...change,
    };
    const compiled = compile(testProject({ drivers: [driver] }));
    expect(compiled.ok ? null : compiled.problems[0]).toMatchObject({
      pointer,
      message: expect.stringMatching(message) as string,
    });
  });
});

describe('drivers together', () => {
  const expression = (id: string, target: string, text: string, inputs: object, more: object = {}) => ({
    id,
    target: `wagon/${target}`,
    kind: 'expression',
    expression: text,
    inputs,
    ...more,
  });

  it('run in the order they depend on each other, several on one target in list order', () => {
    const drivers = [
      expression('c', 'translate.z', 'y * 10', { y: 'wagon/translate.y' }),
      expression('b', 'translate.y', 'x + 1', { x: 'wagon/translate.x' }),
      expression('b2', 'translate.y', '5', {}, { combine: 'add' }),
      expression('b3', 'translate.y', '1 / 0', {}),
    ];
    const project = testProject({ drivers }, [
      { channel: 'wagon/translate.x', keys: [{ frame: 0, value: 2 }] },
    ]);
    const program = programOf(project);
    const out = program.createOutput();
    program.run(0, out);
    expect(out.channels[slotOf(program, 'wagon/translate.z')]).toBe(80);
    expect(program.channelValue(slotOf(program, 'wagon/translate.z'), 0)).toBe(80);
    expect(program.channelRates(slotOf(program, 'wagon/translate.z'), 0)[0]).toBe(80);
  });

  it('echo late and less, from the rest values', () => {
    const project = testProject(
      {
        drivers: [
          {
            id: 'e',
            target: 'wagon/custom.throttle',
            kind: 'echo',
            input: 'wagon/rotate.y',
            delay: 6,
            gain: 0.4,
          },
        ],
      },
      [TURN],
    );
    expectClose(valueAt(project, 'wagon/custom.throttle', 12), 0.5 + 0.4 * 90, 1e-12);
    const program = programOf(project);
    expectClose(program.channelRates(slotOf(program, 'wagon/custom.throttle'), 12)[1], 0.4 * 360, 1e-12);
  });

  it('refuse a ring, naming its channels in order', () => {
    const drivers = [
      expression('a', 'translate.x', 'y', { y: 'wagon/translate.y' }),
      expression('b', 'translate.y', 'z', { z: 'wagon/translate.z' }),
      { id: 'c', target: 'wagon/translate.z', kind: 'echo', input: 'wagon/translate.x', delay: 3, gain: 1 },
    ];
    const compiled = compile(testProject({ drivers }));
    const message = compiled.ok ? '' : compiled.problems[0]!.message;
    expect(message).toMatch(/ring: (wagon\/translate\.[xyz] → ){3}wagon\/translate\.[xyz];/);
    const names = message.match(/translate\.[xyz]/g)!;
    expect(['xzyx', 'zyxz', 'yxzy', 'xyzx', 'yzxy', 'zxyz']).toContain(
      names.map((name) => name.at(-1)).join(''),
    );
  });
});

describe('the limits of an expression', () => {
  it.each([
    [`min(${Array(65).fill('1').join(', ')})`, /65 arguments; it must have 1 to 64/],
    [`${'-'.repeat(300)}x`, /at most 256 levels/],
    [`${'x+'.repeat(40_000)}x`, /at most 65536/],
    [`${'('.repeat(257)}x${')'.repeat(257)}`, /at most 256 levels/],
  ])('are told (%.12s)', (text, message) => expect(refusal(text)).toMatch(message));

  it('allow a long sum, which is one level, and 256 brackets', () => {
    expect(evaluate(`${'x+'.repeat(30_000)}x`)).toBe(90_003);
    expect(evaluate(`${'('.repeat(256)}x${')'.repeat(256)}`)).toBe(3);
    expect(evaluate('mod(1, 0.1)')).toBe(1 - 0.1 * 10);
  });
});
