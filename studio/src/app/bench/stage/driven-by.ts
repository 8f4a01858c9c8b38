import { driverReads, partOf, type Driver, type Project } from '@kaizen/core';
import { channelLabel } from './channel-label';

/** What drives a channel, in a few words: `slider-crank, from Wheel, turn Y`. */
export function drivenBy(project: Project, driver: Driver): string {
  const names = driverReads(driver)
    .map(({ names: what, id }) =>
      what === 'channel' ? channelLabel(project, id).full : (partOf(project, id)?.name ?? id),
    )
    .join('; ');
  const how = driver.kind === 'linkage' ? driver.linkage : driver.kind;
  return names ? `${how}, from ${names}` : how;
}
