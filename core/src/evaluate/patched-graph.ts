import { firstAtOrAfter, type Project } from '../project';
import { compileDriver, type CompiledDriver } from '../drive';
import { compileConstraint, type CompiledConstraint } from '../rig';
import { constraintContext, driverContext } from './compile-contexts';
import { FormulaLanes } from './formulas';
import type { Graph } from './graph';
import type { Structure } from './structure';

/**
 * The graph of a project in which drivers and constraints were changed in their numbers alone: what reads what stays, and with it
 * the order. Null where more is another, or something can't be compiled.
 */
export function patchedGraph(
  graph: Graph,
  before: Project,
  project: Project,
  structure: Structure,
): Graph | null {
  const { drivers: oldDrivers, constraints: oldConstraints, range } = before;
  const sameRange = range.start === project.range.start && range.end === project.range.end;
  if (
    project.drivers.length !== oldDrivers.length ||
    project.constraints.length !== oldConstraints.length ||
    !sameRange
  )
    return null;
  const drivers = patched(
    oldDrivers,
    project.drivers,
    graph.driverPlaces,
    graph.drivers,
    (driver, i, old) => {
      const made = compileDriver(driver, i, driverContext(project, structure));
      return made.ok && driver.muted === oldDrivers[i]!.muted && isWiredAlike(made.value, old)
        ? made.value
        : null;
    },
  );
  const constraints = patched(
    oldConstraints,
    project.constraints,
    graph.constraintPlaces,
    graph.constraints,
    (constraint, i, old) => {
      const made = compileConstraint(constraint, i, constraintContext(project, structure));
      return made.ok && constraint.muted === oldConstraints[i]!.muted && isHeldAlike(made.value, old)
        ? made.value
        : null;
    },
  );
  if (!drivers || !constraints) return null;
  const batches = patchedBatches(graph.batches, graph.drivers, drivers);
  if (!batches) return null;
  const formulas = graph.formulas.map((formula, i) =>
    drivers[i] === graph.drivers[i] ? formula : undefined,
  );
  return { ...graph, drivers, constraints, batches, formulas };
}

/** What was compiled of a list with the changed entries compiled anew; null where one is muted now or wired another way. */
function patched<T extends { readonly muted: boolean }, C>(
  before: readonly T[],
  after: readonly T[],
  places: readonly number[],
  compiled: readonly C[],
  compileAnew: (entry: T, i: number, old: C) => C | null,
): readonly C[] | null {
  if (before === after) return compiled;
  let next: C[] | null = null;
  for (let i = 0; i < after.length; i++) {
    if (after[i] === before[i]) continue;
    if (after[i]!.muted && before[i]!.muted) continue;
    const number = firstAtOrAfter(places, i);
    if (places[number] !== i) return null;
    const made = compileAnew(after[i]!, i, compiled[number]!);
    if (!made) return null;
    (next ??= compiled.slice())[number] = made;
  }
  return next ?? compiled;
}

function isWiredAlike(a: CompiledDriver, b: CompiledDriver): boolean {
  return (
    a.target === b.target &&
    a.mechanism?.key === b.mechanism?.key &&
    isSameList(a.slots, b.slots) &&
    isSameList(a.parts, b.parts) &&
    isSameList(a.late, b.late)
  );
}

function isHeldAlike(a: CompiledConstraint, b: CompiledConstraint): boolean {
  return (
    a.part === b.part &&
    a.bends === b.bends &&
    isSameList(a.slots, b.slots) &&
    isSameList(a.parts, b.parts) &&
    isSameList(a.late, b.late)
  );
}

function isSameList(a: readonly number[], b: readonly number[]): boolean {
  return a.length === b.length && a.every((each, i) => each === b[i]);
}

/** Batches with those made anew of which a formula changed; null where one has another shape now. */
function patchedBatches(
  batches: readonly FormulaLanes[],
  before: readonly CompiledDriver[],
  after: readonly CompiledDriver[],
): readonly FormulaLanes[] | null {
  const changed = new Set<number>();
  if (before !== after) before.forEach((driver, i) => driver !== after[i] && changed.add(i));
  for (const i of changed) if (before[i]!.formula?.shape !== after[i]!.formula?.shape) return null;
  if (changed.size === 0) return batches;
  return batches.map((batch) =>
    batch.numbers.some((number) => changed.has(number))
      ? new FormulaLanes(
          Array.from(batch.numbers, (number) => after[number]!),
          [...batch.numbers],
        )
      : batch,
  );
}
