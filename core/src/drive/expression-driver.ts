import { channel, otherwise, record, text, type ExpressionDriver } from '../project';
import type { Jet } from '../law';
import { compileExpression } from './expression/compile';
import type { DriverKind } from './driver';

/** A formula over channels, the frame and the seconds. */
export const expressionDriver: DriverKind<ExpressionDriver> = {
  says: 'computes a formula',
  fields: { inputs: otherwise(record(channel()), {}), expression: text() },
  example: { inputs: { x: 'wagon/translate.x' }, expression: '-x / (2*pi*0.35) * 360' },
  make: (driver, context) => {
    const names = Object.keys(driver.inputs);
    const compiled = compileExpression(driver.expression, names);
    if (!compiled.ok) return { at: ['expression'], message: compiled.message };
    const { code, jet } = compiled.value;
    const slots = names.map((name) => context.slot(driver.inputs[name]!));
    return {
      slots,
      formula: code,
      jet: (read) => {
        const { frame, secondsPerFrame } = read;
        const time: Jet = [frame, 1, 0, 0];
        const seconds: Jet = [frame * secondsPerFrame, secondsPerFrame, 0, 0];
        return jet([time, seconds, ...slots.map((slot) => read.channel(slot))]);
      },
    };
  },
};
