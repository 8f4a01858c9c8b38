import type { CompiledDriver } from '../drive';
import { FormulaLanes } from './formulas';
import type { Graph } from './graph';
import { listIn } from './list-in';
import type { Structure } from './structure';

/** From so many formulas of one shape on they are computed together. */
const LEAST_BATCH = 8;
/** No more at once: their registers have to stay near the processor. */
const MOST_LANES = 128;
const NOTHING: readonly number[] = [];

/**
 * The order of a whole run, with formulas of one shape on one level put together: a level has all nodes that read only nodes of
 * levels before.
 */
export function inSteps(
  order: Int32Array,
  reads: Graph['reads'],
  structure: Structure,
  drivers: readonly CompiledDriver[],
  driversOf: Graph['driversOf'],
): Pick<Graph, 'steps' | 'batches'> {
  const parts = structure.parts.length;
  if (drivers.filter(({ formula }) => formula).length < LEAST_BATCH) return { steps: order, batches: [] };
  const { parents } = structure.hierarchy;
  const levels = new Int32Array(order.length);
  for (const node of order) {
    let level = 0;
    if (node < parts && parents[node]! >= 0) level = levels[parents[node]!]! + 1;
    for (const read of reads.get(node) ?? NOTHING) level = Math.max(level, levels[read]! + 1);
    levels[node] = level;
  }
  const groups = new Map<string, number[]>();
  driversOf.forEach((list, i) => {
    const formula = list.length === 1 ? drivers[list[0]!]!.formula : undefined;
    if (formula) listIn(groups, `${levels[parts + i]!} ${formula.shape}`).push(i);
  });
  const batches: FormulaLanes[] = [];
  const batchOf = new Map<number, number>();
  for (const group of groups.values()) {
    if (group.length < LEAST_BATCH) continue;
    for (let at = 0; at < group.length; at += MOST_LANES) {
      const lanes = group.slice(at, at + MOST_LANES);
      const numbers = lanes.map((i) => driversOf[i]![0]!);
      for (const i of lanes) batchOf.set(parts + i, batches.length);
      const inLanes = numbers.map((number) => drivers[number]!);
      batches.push(new FormulaLanes(inLanes, numbers));
    }
  }
  if (batches.length === 0) return { steps: order, batches };
  const inLevels = [...order].sort((a, b) => levels[a]! - levels[b]!);
  const begun = new Set<number>();
  const steps = inLevels.flatMap((node) => {
    const batch = batchOf.get(node);
    if (batch === undefined) return [node];
    if (begun.has(batch)) return [];
    begun.add(batch);
    return [-1 - batch];
  });
  return { steps: Int32Array.from(steps), batches };
}
