import type { CompiledDriver } from '../drive';
import { FormulaLanes } from './formulas';
import type { Graph } from './graph';
import { listIn, withRoom } from './lists';
import type { Structure } from './structure';

/** From so many formulas of one shape on they are computed together. */
const LEAST_BATCH = 8;
/** No more at once: their registers have to stay near the processor. */
const MOST_LANES = 128;
const NOTHING: readonly number[] = [];

/** The batch and the lane in it of a driver whose formula is in one. */
export function laneAt(
  lanes: Int32Array,
  driver: number,
): { readonly batch: number; readonly lane: number } | null {
  const at = lanes[driver]!;
  return at < 0 ? null : { batch: Math.floor(at / MOST_LANES), lane: at % MOST_LANES };
}

/**
 * The order of a whole run, with formulas of one shape on one level put together: a level has all nodes that read only nodes of
 * levels before.
 */
export function inSteps(
  order: Int32Array,
  reads: Graph['reads'],
  structure: Structure,
  partRoom: number,
  {
    drivers,
    muted,
    allOf,
  }: {
    readonly drivers: readonly CompiledDriver[];
    readonly muted: readonly boolean[];
    readonly allOf: Graph['driversOf'];
  },
): Pick<Graph, 'steps' | 'batches' | 'lanes'> {
  const lanes = new Int32Array(drivers.length).fill(-1);
  if (drivers.filter(({ formula }) => formula).length < LEAST_BATCH)
    return { steps: order, batches: [], lanes };
  const { parents } = structure.hierarchy;
  const levels = new Int32Array(partRoom + order.length);
  for (const node of order) {
    let level = 0;
    if (node < partRoom && parents[node]! >= 0) level = levels[parents[node]!]! + 1;
    for (const read of reads.get(node) ?? NOTHING) level = Math.max(level, levels[read]! + 1);
    levels[node] = level;
  }
  const groups = new Map<string, number[]>();
  allOf.forEach((list, i) => {
    const formula = list.length === 1 ? drivers[list[0]!]!.formula : undefined;
    if (formula) listIn(groups, `${levels[partRoom + i]!} ${formula.shape}`).push(i);
  });
  const batches: FormulaLanes[] = [];
  const batchOf = new Map<number, number>();
  for (const group of groups.values()) {
    if (group.length < LEAST_BATCH) continue;
    for (let at = 0; at < group.length; at += MOST_LANES) {
      const places = group.slice(at, at + MOST_LANES);
      const numbers = places.map((i) => allOf[i]![0]!);
      for (const i of places) batchOf.set(partRoom + i, batches.length);
      numbers.forEach((number, lane) => (lanes[number] = batches.length * MOST_LANES + lane));
      batches.push(
        FormulaLanes.of(
          numbers.map((number) => drivers[number]!),
          numbers,
          (number) => muted[number]!,
        ),
      );
    }
  }
  if (batches.length === 0) return { steps: order, batches, lanes };
  const inLevels = [...order].sort((a, b) => levels[a]! - levels[b]!);
  const begun = new Set<number>();
  const steps = inLevels.flatMap((node) => {
    const batch = batchOf.get(node);
    if (batch === undefined) return [node];
    if (begun.has(batch)) return [];
    begun.add(batch);
    return [-1 - batch];
  });
  return { steps: withRoom(Int32Array.from(steps)), batches, lanes };
}
