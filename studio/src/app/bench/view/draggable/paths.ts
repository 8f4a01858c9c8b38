import type { At } from './draggable';

/** A line through places, as an SVG path. */
export function lineThrough(places: readonly At[]): string {
  return places.map(({ x, y }, i) => `${i === 0 ? 'M' : 'L'}${x.toFixed(1)} ${y.toFixed(1)}`).join('');
}

export function circleAt({ x, y }: At, radius: number): string {
  return `M${x - radius} ${y}a${radius} ${radius} 0 1 0 ${2 * radius} 0a${radius} ${radius} 0 1 0 ${-2 * radius} 0`;
}

/** A square about a place, `half` from its middle to its sides. */
export function squareAt({ x, y }: At, half: number): string {
  return `M${x - half} ${y - half}h${2 * half}v${2 * half}h${-2 * half}z`;
}

/** A square stood on its corner. */
export function diamondAt({ x, y }: At, reach: number): string {
  return `M${x - reach} ${y}l${reach} ${-reach}l${reach} ${reach}l${-reach} ${reach}z`;
}

export function crossAt({ x, y }: At, reach: number): string {
  return `M${x - reach} ${y}h${2 * reach}M${x} ${y - reach}v${2 * reach}`;
}
