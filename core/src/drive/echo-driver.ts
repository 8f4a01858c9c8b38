import { channel, frames, number, orNull, otherwise, type EchoDriver } from '../project';
import { constantJet } from '../law';
import type { DriverKind } from './driver';

/**
 * Late and less: r + gain·(input(g) − z) at g = f − delay, kept between `from` and `to`; z is the input's value at `from`, or its
 * rest value, r the target's rest value, which `add` leaves out.
 */
export const echoDriver: DriverKind<EchoDriver> = {
  says: 'repeats the input, late and more or less',
  fields: {
    input: channel(),
    delay: otherwise(frames(), 0),
    gain: otherwise(number(), 1),
    from: otherwise(orNull(frames()), null),
    to: otherwise(orNull(frames()), null),
  },
  example: { input: 'wagon/translate.x', delay: 6, gain: 0.4 },
  edition: ({ from, to }) => from !== null || to !== null,
  refuse: ({ from, to }) =>
    from !== null && to !== null && !(from < to)
      ? { at: ['to'], message: `to is ${to} and from ${from}; from must be less than to` }
      : null,
  make: (driver, context) => {
    const { gain, delay, from, to } = driver;
    const input = context.slot(driver.input);
    const rest = driver.combine === 'add' ? 0 : context.rest(context.slot(driver.target));
    const inputRest = context.rest(input);
    const low = from ?? -Infinity;
    const high = to ?? Infinity;
    return {
      late: [input],
      value: (read) => {
        const zero = from === null ? inputRest : read.channelAt(input, from);
        return (
          rest + gain * (read.channelAt(input, Math.min(Math.max(read.frame - delay, low), high)) - zero)
        );
      },
      jet: (read) => {
        const zero = from === null ? inputRest : read.channelAt(input, from)[0];
        const at = read.frame - delay;
        const [v, d1, d2, d3] = read.channelAt(input, Math.min(Math.max(at, low), high));
        const value = rest + gain * (v - zero);
        return at < low || at >= high ? constantJet(value) : [value, gain * d1, gain * d2, gain * d3];
      },
    };
  },
};
