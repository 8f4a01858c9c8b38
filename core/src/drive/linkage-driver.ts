import { channel, otherwise, record, oneOf, text, type LinkageDriver } from '../project';
import { LINKAGES } from './linkage';
import type { DriverKind } from './driver';

/** A mechanism: one of its outputs from its inputs. */
export const linkageDriver: DriverKind<LinkageDriver> = {
  says: 'is moved by a mechanism',
  fields: {
    linkage: oneOf(...LINKAGES.keys()),
    inputs: record(channel()),
    output: text(),
    params: otherwise({ schema: { type: 'object' } }, {}),
  },
  example: {
    linkage: 'slider-crank',
    inputs: { angle: 'wheel/rotate.z' },
    output: 'slide',
    params: { crank: 0.2, rod: 0.8 },
  },
  make: (driver, context) => {
    const linkage = LINKAGES.get(driver.linkage)!;
    const output = linkage.outputs.indexOf(driver.output);
    if (output < 0) {
      return {
        at: ['output'],
        message: `a ${driver.linkage} has no output "${driver.output}"; it must be ${linkage.outputs.join(' or ')}`,
      };
    }
    const slots: number[] = [];
    for (const name of linkage.inputs) {
      const input = Object.hasOwn(driver.inputs, name) ? driver.inputs[name] : undefined;
      if (input === undefined)
        return { at: ['inputs', name], message: `"${name}" is missing; a ${driver.linkage} must have it` };
      slots.push(context.slot(input));
    }
    const read = linkage.read(driver.params);
    if ('message' in read) return { at: ['params', ...read.at], message: read.message };
    return {
      slots,
      mechanism: {
        key: JSON.stringify([driver.linkage, slots, read.params]),
        slots,
        make: read.make,
      },
      value: (reader, mechanism) => reader.solved(mechanism, output),
      jet: (reader, mechanism) => reader.solved(mechanism, output),
      reason: (reader, mechanism) => reader.unsolved(mechanism),
    };
  },
};
