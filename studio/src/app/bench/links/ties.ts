import {
  constraintReads,
  driverReads,
  splitChannel,
  type Constraint,
  type Driver,
  type Part,
  type Project,
} from '@kaizen/core';
import { channelLabel } from '../stage/channel-label';
import { drivenBy } from '../stage/driven-by';

/** A driver beside a part, in words; `other` is the part at its other end. */
export interface DriverTie {
  readonly driver: Driver;
  readonly channel: string;
  readonly title: string;
  readonly words: string;
  readonly other: string | null;
}

/** A constraint beside a part, and the part it acts on. */
export interface ConstraintTie {
  readonly constraint: Constraint;
  readonly other: string;
}

/** All that links a part to others. */
export interface Links {
  readonly children: readonly Part[];
  readonly drivenBy: readonly DriverTie[];
  readonly drives: readonly DriverTie[];
  readonly constraints: readonly Constraint[];
  /** Constraints of other parts that are about this one. */
  readonly onIt: readonly ConstraintTie[];
}

export function linksOf(project: Project, part: Part): Links {
  const isOwn = (channel: string) => splitChannel(channel).part === part.id;
  const reads = (driver: Driver) =>
    driverReads(driver).map(({ names, id }) => (names === 'channel' ? splitChannel(id).part : id));
  return {
    children: project.parts.filter(({ parent }) => parent === part.id),
    drivenBy: project.drivers
      .filter(({ target }) => isOwn(target))
      .map((driver) => ({
        driver,
        channel: driver.target,
        title: channelLabel(project, driver.target).short,
        words: drivenBy(project, driver),
        other: reads(driver).find((id) => id !== part.id) ?? null,
      })),
    drives: project.drivers
      .filter((driver) => !isOwn(driver.target) && reads(driver).includes(part.id))
      .map((driver) => ({
        driver,
        channel: driver.target,
        title: channelLabel(project, driver.target).full,
        words: drivenBy(project, driver),
        other: splitChannel(driver.target).part,
      })),
    constraints: project.constraints.filter((each) => each.part === part.id),
    onIt: project.constraints
      .filter(
        (each) =>
          each.part !== part.id &&
          constraintReads(each).some(({ names, id }) => (names === 'channel' ? isOwn(id) : id === part.id)),
      )
      .map((constraint) => ({ constraint, other: constraint.part })),
  };
}
