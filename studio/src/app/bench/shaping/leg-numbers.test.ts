import type { Leg } from '@kaizen/core';
import { dyingWords, legNumbers } from './leg-numbers';

const ease = (family: 'back' | 'elastic' | 'cubic'): Leg => ({ kind: 'ease', family, slow: 'end' });

describe('numbers of legs', () => {
  it('of a back are how far it goes past the end, in percent', () => {
    const [past, more] = legNumbers(ease('back'));
    expect(more).toBeUndefined();
    expect(past!.read(ease('back'))).toBeCloseTo(10, 3);
    expect(past!.read(past!.write(ease('back'), 25))).toBeCloseTo(25, 6);
    expect(past!.write(ease('back'), -5)).toMatchObject({ overshoot: 0 });
  });

  it('of a spring are its swings, and how fast they die is told', () => {
    const [swings, past] = legNumbers(ease('elastic'));
    const four = swings!.write(ease('elastic'), 4);
    expect(four).toMatchObject({ period: 0.25 });
    expect(swings!.read(four)).toBe(4);
    expect(dyingWords(four)).toBe('each swing is 18 % of the one before');
    expect(dyingWords(ease('elastic'))).toBe('each swing is 13 % of the one before');
    expect(past!.read(past!.write(four, 90))).toBeCloseTo(90, 6);
    expect(swings!.write(four, 1e9)).toMatchObject({ period: 0.01 });
  });

  it('keep the ramps of a trapezoid within its leg', () => {
    const leg: Leg = { kind: 'law', law: 'trapezoid', accelerate: 0.7 };
    const [accelerate, decelerate] = legNumbers(leg);
    expect(decelerate!.write(leg, 0.5)).toMatchObject({
      accelerate: 0.7,
      decelerate: expect.closeTo(0.3, 12) as number,
    });
    expect(accelerate!.write(leg, -1)).toMatchObject({ accelerate: 0 });
    expect(accelerate!.read({ kind: 'law', law: 'trapezoid' })).toBeCloseTo(1 / 3, 12);
  });

  it('are none for legs that have none', () => {
    expect(legNumbers(ease('cubic'))).toEqual([]);
    expect(legNumbers({ kind: 'hold' })).toEqual([]);
    expect(dyingWords(ease('cubic'))).toBeNull();
  });
});
