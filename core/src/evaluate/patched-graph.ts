import { changedPlaces, firstAtOrAfter, type Constraint, type Driver, type Project } from '../project';
import { compileDriver, type CompiledDriver } from '../drive';
import { compileConstraint, type CompiledConstraint } from '../rig';
import { constraintContext, driverContext } from './compile-contexts';
import type { FormulaLanes } from './formulas';
import type { Graph } from './graph';
import { withOneMore } from './lists';
import { laneAt } from './run-steps';
import type { Structure } from './structure';

/**
 * The graph of a project in which drivers and constraints were changed in their numbers alone, or drivers muted: what reads what
 * stays, and with it the order. Null where more is another, or something can't be compiled.
 */
export function patchedGraph(
  graph: Graph,
  before: Project,
  project: Project,
  structure: Structure,
): Graph | null {
  const { range } = before;
  const sameRange = range.start === project.range.start && range.end === project.range.end;
  if (
    project.drivers.length !== before.drivers.length ||
    project.constraints.length !== before.constraints.length ||
    !sameRange
  )
    return null;
  const driven = withDrivers(graph, before.drivers, project, structure);
  return driven && withConstraints(driven, before.constraints, project, structure);
}

/** What is changed of a graph whose drivers are changed. */
interface Changed {
  readonly drivers: CompiledDriver[];
  readonly formulas: (FormulaLanes | undefined)[];
  readonly batches: FormulaLanes[];
  readonly driversOf: (readonly number[])[];
}

function withDrivers(
  graph: Graph,
  before: readonly Driver[],
  project: Project,
  structure: Structure,
): Graph | null {
  const places = before === project.drivers ? [] : changedPlaces(before, project.drivers);
  if (places.length === 0) return graph;
  const changed: Changed = {
    drivers: graph.drivers.slice(),
    formulas: graph.formulas.slice(),
    batches: graph.batches.slice(),
    driversOf: graph.driversOf.slice(),
  };
  for (const place of places) {
    const driver = project.drivers[place]!;
    const number = firstAtOrAfter(graph.driverPlaces, place);
    if (graph.driverPlaces[number] !== place) {
      if (driver.muted && before[place]!.muted) continue;
      return null;
    }
    const made = compileDriver(driver, place, driverContext(project, structure));
    if (!made.ok || !isWiredAlike(made.value, graph.drivers[number]!)) return null;
    if (!changeDriver(graph, changed, number, made.value, driver.muted)) return null;
  }
  return { ...graph, ...changed };
}

/** Puts a driver in the place of one that is wired alike; false where its formula lies among others of a shape that it has no more. */
function changeDriver(
  graph: Graph,
  changed: Changed,
  number: number,
  driver: CompiledDriver,
  muted: boolean,
): boolean {
  const lane = laneAt(graph.lanes, number);
  if (lane && driver.formula?.shape !== graph.drivers[number]!.formula!.shape) return false;
  if (lane) changed.batches[lane.batch] = changed.batches[lane.batch]!.with(lane.lane, driver, muted);
  changed.drivers[number] = driver;
  changed.formulas[number] = undefined;
  const slot = graph.nodeOfSlot.get(driver.target)! - graph.partRoom;
  const acting = changed.driversOf[slot]!;
  if (acting.includes(number) === muted)
    changed.driversOf[slot] = muted
      ? acting.filter((each) => each !== number)
      : [...acting, number].sort((a, b) => a - b);
  return true;
}

function withConstraints(
  graph: Graph,
  before: readonly Constraint[],
  project: Project,
  structure: Structure,
): Graph | null {
  const places = before === project.constraints ? [] : changedPlaces(before, project.constraints);
  if (places.length === 0) return graph;
  const constraints = graph.constraints.slice();
  for (const place of places) {
    const constraint = project.constraints[place]!;
    const wasMuted = before[place]!.muted;
    if (constraint.muted && wasMuted) continue;
    if (constraint.muted || wasMuted) return null;
    const number = firstAtOrAfter(graph.constraintPlaces, place);
    const made = compileConstraint(constraint, place, constraintContext(project, structure));
    if (!made.ok || !isHeldAlike(made.value, graph.constraints[number]!)) return null;
    constraints[number] = made.value;
  }
  return { ...graph, constraints };
}

/** The graph with a part at the end of the list that nothing reads yet; null where no number is left for it. */
export function grownGraph(graph: Graph, parts: number): Graph | null {
  if (parts > graph.partRoom) return null;
  const order = withOneMore(graph.order, parts - 1);
  const steps = graph.steps === graph.order ? order : withOneMore(graph.steps, parts - 1);
  return { ...graph, order, steps };
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
