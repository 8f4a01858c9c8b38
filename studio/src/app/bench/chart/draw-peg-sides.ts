import type { Curve, SideMode } from '@kaizen/core';
import { xOf, type Plot } from '../plot/plot';

/** A fine stroke on each side of a peg: how the curve meets the key there. */
export function drawSides(
  pen: CanvasRenderingContext2D,
  plot: Plot,
  color: string,
  curve: Curve,
  index: number,
  y: number,
): void {
  const key = curve.keys[index]!;
  const x = xOf(plot, key.frame);
  pen.strokeStyle = color;
  pen.lineWidth = 1.1;
  const before = curve.keys[index - 1];
  const after = curve.keys[index + 1];
  if (before) drawSide(pen, x, y, -1, before.leg.kind === 'curve' ? key.in.mode : before.leg.kind);
  if (after) drawSide(pen, x, y, 1, key.leg.kind === 'curve' ? key.out.mode : key.leg.kind);
}

function drawSide(
  pen: CanvasRenderingContext2D,
  x: number,
  y: number,
  way: 1 | -1,
  what: SideMode | 'hold' | 'ease' | 'law' | 'ballistic',
): void {
  const at = (dx: number) => x + way * dx;
  pen.beginPath();
  switch (what) {
    case 'smooth':
    case 'bounded':
    case 'set':
      pen.moveTo(at(4), y - 2 * way);
      pen.quadraticCurveTo(at(7), y - 3 * way, at(9), y - 7 * way);
      break;
    case 'flat':
      pen.moveTo(at(4), y + 5);
      pen.lineTo(at(9), y + 5);
      break;
    case 'linear':
      pen.moveTo(at(3), y - 1 * way);
      pen.lineTo(at(9), y - 6 * way);
      break;
    case 'hold':
      if (way === -1) {
        pen.moveTo(at(4), y - 6);
        pen.lineTo(at(4), y + 6);
      }
      break;
    case 'ease':
    case 'law':
      pen.moveTo(at(4), y + 6);
      pen.bezierCurveTo(at(7), y + 6, at(7), y, at(10), y);
      break;
    case 'ballistic':
      pen.moveTo(at(4), y + 5);
      pen.quadraticCurveTo(at(6), y - 4, at(10), y - 5);
      break;
  }
  pen.stroke();
}
