import {
  constraintReads,
  splitChannel,
  type Constraint,
  type Driver,
  type Part,
  type Project,
} from '@kaizen/core';
import { channelLabel } from '../stage/channel-label';
import { drivenBy, driverParts } from '../stage/driven-by';

/** A driver of another part that reads this one, in words; `other` is the part that it drives. */
export interface DriverTie {
  readonly driver: Driver;
  readonly channel: string;
  readonly title: string;
  readonly words: string;
  readonly other: string;
}

/** A constraint beside a part, and the part it acts on. */
export interface ConstraintTie {
  readonly constraint: Constraint;
  readonly other: string;
}

/** All that links a part to others. */
export interface Links {
  readonly children: readonly Part[];
  /** The drivers of its channels, in the order in which they act. */
  readonly drivenBy: readonly Driver[];
  readonly drives: readonly DriverTie[];
  readonly constraints: readonly Constraint[];
  /** Constraints of other parts that are about this one. */
  readonly onIt: readonly ConstraintTie[];
}

export function linksOf(project: Project, part: Part): Links {
  const isOwn = (channel: string) => splitChannel(channel).part === part.id;
  return {
    children: project.parts.filter(({ parent }) => parent === part.id),
    drivenBy: project.drivers.filter(({ target }) => isOwn(target)),
    drives: project.drivers
      .filter((driver) => !isOwn(driver.target) && driverParts(driver).includes(part.id))
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
