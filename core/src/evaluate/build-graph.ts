import type { Constraint, Driver, Problem, Project, Result } from '../project';
import { LIMITS } from '../file';
import { compileDriver, type CompiledDriver, type DriverContext, type DriverResult } from '../drive';
import { compileConstraint, type CompiledConstraint, type ConstraintResult } from '../rig';
import { constraintContext, driverContext } from './compile-contexts';
import type { FormulaLanes } from './formulas';
import type { Graph, MechanismNode } from './graph';
import { listIn, withRoom } from './lists';
import { sortNodes } from './node-order';
import { inSteps } from './run-steps';
import { TRANSFORM_VALUES, type Structure } from './structure';

/** Where the squash stands among a part's transform channels. */
const SQUASH = TRANSFORM_VALUES - 1;

/**
 * Compiles a project's drivers and constraints and puts all that is computed in order; a ring is a problem. Drivers that are muted
 * take their place in it where they can; where one would make a problem, all of them are left out.
 */
export function buildGraph(project: Project, structure: Structure): Result<Graph> {
  if (project.drivers.some(({ muted }) => muted)) {
    const withAll = new GraphBuilder(project, structure, true).build();
    if (withAll.ok) return withAll;
  }
  return new GraphBuilder(project, structure, false).build();
}

/** Numbers left free for parts that are added later, so that nothing has to be numbered anew for one. */
function roomFor(parts: number): number {
  return parts + (parts >> 3) + 16;
}

class GraphBuilder {
  private readonly problems: Problem[] = [];
  private readonly drivers: CompiledDriver[] = [];
  private readonly driverPlaces: number[] = [];
  private readonly constraints: CompiledConstraint[] = [];
  private readonly constraintPlaces: number[] = [];
  private readonly mechanisms: MechanismNode[] = [];
  private readonly mechanismByKey = new Map<string, number>();
  private readonly mechanismOf: number[] = [];
  private readonly drivenSlots: number[] = [];
  private readonly driversOf: number[][] = [];
  private readonly placeOfSlot = new Map<number, number>();
  private readonly constraintsOf = new Map<number, number[]>();
  private readonly bentBy = new Map<number, number[]>();

  private readonly partRoom: number;

  constructor(
    private readonly project: Project,
    private readonly structure: Structure,
    private readonly withMuted: boolean,
  ) {
    this.partRoom = roomFor(structure.parts.length);
  }

  build(): Result<Graph> {
    this.addDrivers();
    this.addConstraints();
    return this.finish();
  }

  private addDrivers(): void {
    const context = driverContext(this.project, this.structure);
    this.project.drivers.forEach((driver, i) => {
      if (driver.muted && !this.withMuted) return;
      const made = this.compiledDriver(driver, i, context);
      if (!made.ok) this.problems.push(made.problem);
      else this.addDriver(made.value, i);
    });
  }

  /** A driver as it was compiled before, where all it was compiled for is still so. */
  private compiledDriver(driver: Driver, i: number, context: DriverContext): DriverResult {
    const known = madeDrivers.get(driver);
    if (known && holds(known, this.structure, this.project)) return { ok: true, value: known.made };
    const made = compileDriver(driver, i, context);
    if (made.ok) madeDrivers.set(driver, madeFor(made.value, this.structure, this.project));
    return made;
  }

  private addDriver(driver: CompiledDriver, place: number): void {
    let at = this.placeOfSlot.get(driver.target);
    if (at === undefined) {
      at = this.drivenSlots.length;
      this.placeOfSlot.set(driver.target, at);
      this.drivenSlots.push(driver.target);
      this.driversOf.push([]);
    }
    this.driversOf[at]!.push(this.drivers.length);
    this.drivers.push(driver);
    this.driverPlaces.push(place);
    this.mechanismOf.push(driver.mechanism ? this.mechanismNode(driver.mechanism) : -1);
  }

  private mechanismNode({ key, slots, make }: NonNullable<CompiledDriver['mechanism']>): number {
    const known = this.mechanismByKey.get(key);
    if (known !== undefined) return known;
    const last = this.mechanisms.at(-1);
    const number = this.mechanisms.length;
    this.mechanisms.push({
      mechanism: make(),
      slots,
      at: last ? last.at + last.mechanism.outputs : 0,
    });
    this.mechanismByKey.set(key, number);
    return number;
  }

  private addConstraints(): void {
    const context = constraintContext(this.project, this.structure);
    this.project.constraints.forEach((constraint, i) => {
      if (constraint.muted) return;
      const known = madeConstraints.get(constraint);
      const made: ConstraintResult =
        known && holds(known, this.structure, this.project)
          ? { ok: true, value: known.made }
          : compileConstraint(constraint, i, context);
      if (!made.ok) {
        this.problems.push(made.problem);
        return;
      }
      if (made.value !== known?.made)
        madeConstraints.set(constraint, madeFor(made.value, this.structure, this.project));
      const { part, bends } = made.value;
      const number = this.constraints.length;
      listIn(this.constraintsOf, part).push(number);
      if (bends >= 0) listIn(this.bentBy, bends).push(number);
      this.constraints.push(made.value);
      this.constraintPlaces.push(i);
    });
  }

  private finish(): Result<Graph> {
    const { structure, partRoom, project } = this;
    const nodeOfSlot = new Map(this.drivenSlots.map((slot, i) => [slot, partRoom + i]));
    const firstMechanism = partRoom + this.drivenSlots.length;
    const reads = new Map<number, number[]>();
    const plain = new Map<number, number[]>();
    const late = new Map<number, number[]>();
    const readSlot = (node: number, slot: number) => {
      const driven = nodeOfSlot.get(slot);
      if (driven === undefined) listIn(plain, node).push(slot);
      else if (driven !== node) listIn(reads, node).push(driven);
      else listIn(late, node).push(driven);
    };
    this.drivenSlots.forEach((slot, i) => {
      const node = partRoom + i;
      listIn(plain, node).push(slot);
      for (const number of this.driversOf[i]!) {
        const driver = this.drivers[number]!;
        const mechanism = this.mechanismOf[number]!;
        if (mechanism >= 0) listIn(reads, node).push(firstMechanism + mechanism);
        for (const read of driver.slots) if (mechanism < 0) readSlot(node, read);
        for (const part of driver.parts) listIn(reads, node).push(part);
        for (const read of driver.late) {
          const driven = nodeOfSlot.get(read);
          if (driven !== undefined) listIn(late, node).push(driven);
        }
      }
    });
    this.mechanisms.forEach(({ slots }, i) => {
      for (const slot of slots) readSlot(firstMechanism + i, slot);
    });
    for (const [slot, node] of nodeOfSlot) {
      const part = structure.partOfSlot(slot);
      const offset = slot - structure.firstSlot[part]!;
      // A rounded squash moves the mesh; the matrix does not read it.
      const isRead = offset < SQUASH || (offset === SQUASH && !structure.frames[part]!.rounded);
      if (isRead) listIn(reads, part).push(node);
    }
    for (const constraint of this.constraints) {
      for (const slot of constraint.slots) readSlot(constraint.part, slot);
      for (const part of constraint.parts) listIn(reads, constraint.part).push(part);
      for (const part of constraint.late) listIn(late, constraint.part).push(part);
    }
    const count = firstMechanism + this.mechanisms.length;
    const sorted = sortNodes(count, partRoom, structure, reads, late);
    if (!sorted.ok) this.problems.push(this.ringProblem(sorted.ring, nodeOfSlot, firstMechanism));
    else if (sorted.lateDepth > LIMITS.lateDepth)
      this.problems.push({
        pointer: '/drivers',
        message: `drivers and constraints that look at other frames read each other ${sorted.lateDepth} deep; at most ${LIMITS.lateDepth} may`,
      });
    const muted = this.driverPlaces.map((place) => project.drivers[place]!.muted);
    if (this.problems.length > 0 || !sorted.ok) return { ok: false, problems: this.problems };
    const order = withRoom(sorted.order);
    return {
      ok: true,
      value: {
        partRoom,
        nodes: count,
        drivers: this.drivers,
        driverPlaces: this.driverPlaces,
        constraints: this.constraints,
        constraintPlaces: this.constraintPlaces,
        mechanisms: this.mechanisms,
        formulas: new Array<FormulaLanes | undefined>(this.drivers.length),
        ...inSteps(order, reads, structure, partRoom, {
          drivers: this.drivers,
          muted,
          allOf: this.driversOf,
        }),
        mechanismOf: Int32Array.from(this.mechanismOf),
        drivenSlots: this.drivenSlots,
        nodeOfSlot,
        driversOf: this.driversOf.map((list) => list.filter((number) => !muted[number])),
        constraintsOf: this.constraintsOf,
        bentBy: this.bentBy,
        order,
        reads,
        plain,
      },
    };
  }

  /** A ring in one sentence: the channels and parts on it in the order in which one drives the next. */
  private ringProblem(
    ring: readonly number[],
    nodeOfSlot: ReadonlyMap<number, number>,
    firstMechanism: number,
  ): Problem {
    const { structure, partRoom } = this;
    const shown = ring.filter((node) => node < firstMechanism);
    if (shown[0] !== shown.at(-1)) shown.push(shown[0]!);
    const names = shown.map((node) =>
      node < partRoom ? structure.parts[node]!.id : structure.channelAt(this.drivenSlots[node - partRoom]!),
    );
    const driven = shown.find((node) => node >= partRoom);
    if (driven !== undefined && shown.every((node) => node >= partRoom)) {
      const first = this.driversOf[shown[0]! - partRoom]![0]!;
      return {
        pointer: `/drivers/${this.driverPlaces[first]!}`,
        message: `the drivers run in a ring: ${names.join(' → ')}; a channel must not drive itself`,
      };
    }
    const constraint = this.constraints.findIndex(({ part }) => shown.includes(part));
    const pointer =
      constraint >= 0
        ? `/constraints/${this.constraintPlaces[constraint]!}`
        : driven !== undefined
          ? `/drivers/${this.driverPlaces[this.driversOf[driven - partRoom]![0]!]!}`
          : `/parts/${shown[0]!}/parent`;
    return {
      pointer,
      message: `parts and channels run in a ring: ${names.join(' → ')}; none may depend on itself`,
    };
  }
}

/** Something compiled, and what it was compiled for. */
interface MadeFor<T> {
  readonly made: T;
  readonly firstSlot: Int32Array;
  readonly frames: Structure['frames'];
  readonly rest: Structure['rest'];
  readonly project: Project;
}
const madeDrivers = new WeakMap<Driver, MadeFor<CompiledDriver>>();
const madeConstraints = new WeakMap<Constraint, MadeFor<CompiledConstraint>>();

function madeFor<T>(made: T, { firstSlot, frames, rest }: Structure, project: Project): MadeFor<T> {
  return { made, firstSlot, frames, rest, project };
}

/** Whether what something was compiled for is still so: slots, rest values and frames of parts, the rate, gravity and range. */
function holds<T>(known: MadeFor<T>, structure: Structure, { rate, gravity, range }: Project): boolean {
  const { firstSlot, frames, rest, project } = known;
  const sameParts =
    (firstSlot === structure.firstSlot && frames === structure.frames && rest === structure.rest) ||
    (firstSlot === structure.grownFrom?.firstSlot &&
      frames === structure.grownFrom.frames &&
      rest === structure.grownFrom.rest);
  return (
    sameParts &&
    project.rate.frames === rate.frames &&
    project.rate.per === rate.per &&
    project.gravity === gravity &&
    project.range.start === range.start &&
    project.range.end === range.end
  );
}
