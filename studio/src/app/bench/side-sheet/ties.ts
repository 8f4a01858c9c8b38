import { constraintSays, splitChannel, type Part, type Project } from '@kaizen/core';
import { channelLabel } from '../stage/channel-label';
import { drivenBy } from '../stage/driven-by';
import type { Standing, State } from '../stage/standing';

/** What holds or drives a part, in a line. */
export interface Tie {
  readonly key: string;
  readonly words: string;
  readonly muted: boolean;
  readonly state: State;
}

/** The constraints on a part, then the drivers of its channels, each with how it stands at the playhead. */
export function tiesOf(project: Project, part: Part, standing: Standing): readonly Tie[] {
  const constraints = project.constraints
    .filter((constraint) => constraint.part === part.id)
    .map((constraint): Tie => ({
      key: `constraint ${constraint.id}`,
      words: constraintSays(project, constraint),
      muted: constraint.muted,
      state: standing.ofConstraint(constraint),
    }));
  const drivers = project.drivers
    .filter(({ target }) => splitChannel(target).part === part.id)
    .map((driver): Tie => ({
      key: `driver ${driver.id}`,
      words: `${channelLabel(project, driver.target).short}: ${drivenBy(project, driver)}`,
      muted: driver.muted,
      state: standing.ofDriver(driver),
    }));
  return [...constraints, ...drivers];
}
