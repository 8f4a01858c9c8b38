import { channel, keyed, type MapDriver } from '../project';
import { composeJet, signAfter } from '../law';
import { compileKeys, keyedJet, keyedValue, LEG } from '../curve';
import type { DriverKind } from './driver';

/** A curve over another channel's value. */
export const mapDriver: DriverKind<MapDriver> = {
  says: 'reads a curve over the input',
  fields: { input: channel(), curve: keyed({ times: 'other', values: 'other' }, LEG) },
  example: {
    input: 'wagon/translate.x',
    curve: {
      keys: [
        { frame: 0, value: 0 },
        { frame: 2, value: 45 },
      ],
    },
  },
  make: (driver, context) => {
    const slot = context.slot(driver.input);
    const keys = compileKeys(driver.curve, context);
    const rest = context.rest(context.slot(driver.target));
    return {
      slots: [slot],
      value: (read) => keyedValue(keys, read.channel(slot), rest),
      jet: (read) => {
        const input = read.channel(slot);
        const backward = signAfter([0, input[1], input[2], input[3]]) < 0;
        return composeJet(keyedJet(keys, input[0], rest, backward), input);
      },
    };
  },
};
