import type { Problem, Project, Result } from '../project';
import { compileDriver, driveOrder, type CompiledDriver } from '../drive';
import type { Structure } from './structure';

/** The drivers that act, and what they drive. */
export interface Links {
  readonly drivers: readonly CompiledDriver[];
  /** Driver indices of each driven slot, in list order, and the driven slots in dependency order. */
  readonly bySlot: ReadonlyMap<number, readonly number[]>;
  readonly order: readonly number[];
}

/** Compiles a project's drivers and puts the channels that they drive in order; a ring of them is a problem. */
export function linkDrivers(project: Project, structure: Structure): Result<Links> {
  const problems: Problem[] = [];
  const drivers: CompiledDriver[] = [];
  const bySlot = new Map<number, number[]>();
  const firstDriverAt = new Map<number, number>();
  project.drivers.forEach((driver, i) => {
    if (driver.muted) return;
    const made = compileDriver(driver, i, {
      slot: (channel) => structure.slots.get(channel) ?? -1,
      rest: (slot) => structure.rest[slot] ?? 0,
    });
    if (!made.ok) {
      problems.push(made.problem);
      return;
    }
    const list = bySlot.get(made.value.target) ?? [];
    if (list.length === 0) {
      bySlot.set(made.value.target, list);
      firstDriverAt.set(made.value.target, i);
    }
    list.push(drivers.length);
    drivers.push(made.value);
  });
  const inputsOf = (slot: number) => (bySlot.get(slot) ?? []).flatMap((driver) => drivers[driver]!.inputs);
  const ordered = driveOrder([...bySlot.keys()], inputsOf);
  if (!ordered.ok) {
    const names = ordered.ring.map((slot) => structure.channels[slot]);
    problems.push({
      pointer: `/drivers/${firstDriverAt.get(ordered.ring[0]!) ?? 0}`,
      message: `the drivers run in a ring: ${names.join(' → ')}; a channel must not drive itself`,
    });
  }
  if (problems.length > 0 || !ordered.ok) return { ok: false, problems };
  return { ok: true, value: { drivers, bySlot, order: ordered.order } };
}
