import type { Ink } from '../bench/plot/ink';

/** What a pen was told: the method, its numbers or words, and the colours it had. */
export interface Stroke {
  readonly method: string;
  readonly args: readonly unknown[];
  readonly fill: string;
  readonly stroke: string;
  readonly alpha: number;
}

/** A canvas pen that writes down what it is told. */
export function recordingPen(): { readonly pen: CanvasRenderingContext2D; readonly strokes: Stroke[] } {
  const strokes: Stroke[] = [];
  const state: Record<string, unknown> = { fillStyle: '', strokeStyle: '', globalAlpha: 1 };
  const pen = new Proxy(state, {
    get(target, name) {
      if (typeof name !== 'string' || name in target) return target[name as string];
      if (name === 'measureText') return (text: string) => ({ width: text.length * 6 });
      return (...args: unknown[]) =>
        strokes.push({
          method: name,
          args,
          fill: String(target['fillStyle']),
          stroke: String(target['strokeStyle']),
          alpha: Number(target['globalAlpha']),
        });
    },
  });
  return { pen: pen as unknown as CanvasRenderingContext2D, strokes };
}

/** Inks whose colours are their own names. */
export const NAMED_INK: Ink = {
  paper: 'paper',
  sheet: 'sheet',
  ink: 'ink',
  soft: 'soft',
  rule: 'rule',
  ruleSoft: 'ruleSoft',
  now: 'now',
  select: 'select',
  selectGround: 'selectGround',
  loose: 'loose',
  ok: 'ok',
  warn: 'warn',
  caution: 'caution',
  tones: { x: 'x', y: 'y', z: 'z', q: 'q', f: 'f', c: 'c' },
  hatch: 'hatch',
};
