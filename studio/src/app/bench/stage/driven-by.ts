import { driverReads, partOf, splitChannel, type Driver, type Project } from '@kaizen/core';
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

/** The parts that a driver reads, themselves or a channel of theirs. */
export function driverParts(driver: Driver): readonly string[] {
  return driverReads(driver).map(({ names, id }) => (names === 'channel' ? splitChannel(id).part : id));
}
