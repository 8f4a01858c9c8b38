import type { Driver, Problem } from '../project';
import { jsonPointer } from '../project';
import type { Jet } from '../law';
import { compileExpression } from './expression/compile';
import { LINKAGES } from './linkage';

/** What a driver reads of the rest of the project, given as functions of a slot and a frame. */
export interface ChannelReader {
  readonly value: (slot: number, frame: number) => number;
  readonly jet: (slot: number, frame: number) => Jet;
  readonly secondsPerFrame: number;
}

/** A driver with its channels turned into slots. */
export interface CompiledDriver {
  readonly id: string;
  readonly target: number;
  readonly add: boolean;
  readonly inputs: readonly number[];
  /** The driver's result at a frame; not finite where its mathematics fails. */
  readonly value: (frame: number, read: ChannelReader) => number;
  readonly jet: (frame: number, read: ChannelReader) => Jet;
}

export interface DriverContext {
  readonly slot: (channel: string) => number;
  readonly rest: (slot: number) => number;
}

export type DriverResult =
  { readonly ok: true; readonly value: CompiledDriver } | { readonly ok: false; readonly problem: Problem };

type DriverMaker<T extends Driver> = (driver: T, context: DriverContext) => Made;
type Made = Pick<CompiledDriver, 'inputs' | 'value' | 'jet'> | Refusal;
interface Refusal {
  readonly at: readonly (string | number)[];
  readonly message: string;
  readonly notYet?: true;
}

function makeExpression(driver: Extract<Driver, { kind: 'expression' }>, context: DriverContext): Made {
  const names = Object.keys(driver.inputs);
  const compiled = compileExpression(driver.expression, names);
  if (!compiled.ok) return { at: ['expression'], message: compiled.message };
  const inputs = names.map((name) => context.slot(driver.inputs[name]!));
  const env = new Float64Array(names.length + 2);
  return {
    inputs,
    value: (frame, read) => {
      for (let i = 0; i < inputs.length; i++) env[i + 2] = read.value(inputs[i]!, frame);
      env[0] = frame;
      env[1] = frame * read.secondsPerFrame;
      return compiled.value.value(env);
    },
    jet: (frame, read) =>
      compiled.value.jet([
        [frame, 1, 0, 0],
        [frame * read.secondsPerFrame, read.secondsPerFrame, 0, 0],
        ...inputs.map((slot) => read.jet(slot, frame)),
      ]),
  };
}

function makeLinkage(driver: Extract<Driver, { kind: 'linkage' }>, context: DriverContext): Made {
  const linkage = LINKAGES.get(driver.linkage);
  if (!linkage) {
    return {
      notYet: true,
      at: ['linkage'],
      message: `this Kaizen does not compute the linkage "${driver.linkage}" yet; it must be ${[...LINKAGES.keys()].join(' or ')}, or the driver muted`,
    };
  }
  if (!linkage.outputs.includes(driver.output)) {
    return {
      at: ['output'],
      message: `a ${driver.linkage} has no output "${driver.output}"; it must be ${linkage.outputs.join(' or ')}`,
    };
  }
  const slots: number[] = [];
  for (const name of linkage.inputs) {
    const channel = Object.hasOwn(driver.inputs, name) ? driver.inputs[name] : undefined;
    if (channel === undefined)
      return { at: ['inputs', name], message: `"${name}" is missing; a ${driver.linkage} must have it` };
    slots.push(context.slot(channel));
  }
  const params: Record<string, number> = { ...linkage.defaults };
  for (const name of [...linkage.required, ...Object.keys(linkage.defaults)]) {
    const given = Object.hasOwn(driver.params, name) ? driver.params[name] : params[name];
    if (typeof given !== 'number') {
      return {
        at: ['params', name],
        message: `${JSON.stringify(given) ?? 'nothing'} stands here; a ${driver.linkage} must have a number "${name}"`,
      };
    }
    params[name] = given;
  }
  const refused = linkage.refuse?.(params);
  if (refused) return { at: ['params'], message: refused };
  const mechanism = linkage.make(params, driver.output);
  const values = new Float64Array(slots.length);
  return {
    inputs: slots,
    value: (frame, read) => {
      for (let i = 0; i < slots.length; i++) values[i] = read.value(slots[i]!, frame);
      return mechanism.value(values);
    },
    jet: (frame, read) => mechanism.jet(slots.map((slot) => read.jet(slot, frame))),
  };
}

/** Late and less: r + gain·(input(f − delay) − input's rest), r the target's rest; `add` leaves r out. */
function makeEcho(driver: Extract<Driver, { kind: 'echo' }>, context: DriverContext): Made {
  const input = context.slot(driver.input);
  const base =
    (driver.combine === 'add' ? 0 : context.rest(context.slot(driver.target))) -
    driver.gain * context.rest(input);
  return {
    inputs: [input],
    value: (frame, read) => base + driver.gain * read.value(input, frame - driver.delay),
    jet: (frame, read) => {
      const [v, d1, d2, d3] = read.jet(input, frame - driver.delay);
      return [base + driver.gain * v, driver.gain * d1, driver.gain * d2, driver.gain * d3];
    },
  };
}

/** The drivers that evaluate today, by kind. One line a driver. */
const DRIVERS: { readonly [K in Driver['kind']]?: DriverMaker<Extract<Driver, { kind: K }>> } = {
  expression: makeExpression,
  linkage: makeLinkage,
  echo: makeEcho,
};

/** Compiles driver number `index` of the project, or says in one sentence why it can't be. */
export function compileDriver(driver: Driver, index: number, context: DriverContext): DriverResult {
  const refuse = ({ at, ...rest }: Refusal): DriverResult => ({
    ok: false,
    problem: { pointer: jsonPointer('drivers', index, ...at), ...rest },
  });
  const make = DRIVERS[driver.kind] as DriverMaker<Driver> | undefined;
  if (!make) {
    return refuse({
      notYet: true,
      at: ['kind'],
      message: `this Kaizen does not compute "${driver.kind}" drivers yet; the driver must be muted or taken out`,
    });
  }
  const made = make(driver, context);
  if ('message' in made) return refuse(made);
  return {
    ok: true,
    value: { id: driver.id, target: context.slot(driver.target), add: driver.combine === 'add', ...made },
  };
}
