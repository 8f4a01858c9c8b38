import { channel, NEVER_SETTLES, NOT_FINITE, SPRING_FIELDS, type FollowDriver } from '../project';
import { Follower } from '../law';
import type { DriverKind, Reader } from './driver';

/** The input on a damped spring. */
export const followDriver: DriverKind<FollowDriver> = {
  says: 'follows the input like a mass on a spring',
  fields: { input: channel(), ...SPRING_FIELDS },
  example: { input: 'wagon/translate.x', frequency: 2, damping: 0.4 },
  make: (driver, context) => {
    const input = context.slot(driver.input);
    const less = driver.combine === 'add' ? context.rest(input) : 0;
    const place = new Float64Array(1);
    const speed = new Float64Array(1);
    const follower = (read: Reader) =>
      new Follower(driver, 1, context.secondsPerFrame, (frame, out) => {
        out[0] = read.channelAt(input, frame);
      });
    return {
      late: [input],
      value: (read) => {
        const settles = read.kept(driver, () => follower(read)).at(read.frame, place, speed);
        return settles ? place[0]! - less : Number.NaN;
      },
      jet: (read) => {
        const [v, d1, d2, d3] = read.kept(driver, follower).jet(read.frame);
        return [v - less, d1, d2, d3];
      },
      reason: () => (driver.loop === null ? NOT_FINITE : NEVER_SETTLES),
    };
  },
};
