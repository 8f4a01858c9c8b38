import {
  channel,
  flag,
  id,
  kinds,
  namingsIn,
  oneOf,
  otherwise,
  jsonPointer,
  type Driver,
  type Field,
  type Fields,
  type Naming,
  type Problem,
} from '../project';
import { distanceDriver } from './distance-driver';
import type { CompiledDriver, DriverContext, DriverKind, Refusal } from './driver';
import { echoDriver } from './echo-driver';
import { expressionDriver } from './expression-driver';
import { followDriver } from './follow-driver';
import { linkageDriver } from './linkage-driver';
import { mapDriver } from './map-driver';

/** The drivers by kind. One line a driver. */
export const DRIVERS: { readonly [K in Driver['kind']]: DriverKind<Extract<Driver, { kind: K }>> } = {
  expression: expressionDriver,
  map: mapDriver,
  linkage: linkageDriver,
  echo: echoDriver,
  follow: followDriver,
  distance: distanceDriver,
};

const COMMON: Fields = {
  id: id(),
  target: channel(),
  combine: otherwise(oneOf('replace', 'add'), 'replace'),
  muted: otherwise(flag(), false),
};

/** A driver as a file has it. */
export const DRIVER: Field = {
  ...kinds(
    'kind',
    Object.fromEntries(Object.entries(DRIVERS).map(([kind, { fields }]) => [kind, { ...fields, ...COMMON }])),
  ),
  definition: 'driver',
};

function kindOf(driver: Driver): DriverKind<Driver> {
  return DRIVERS[driver.kind] as DriverKind<Driver>;
}

/** What of a driver's fields can't stand together, or null. */
export function driverRefusal(driver: Driver): Refusal | null {
  return kindOf(driver).refuse?.(driver) ?? null;
}

/** Whether a driver came with the second edition of the format. */
export function driverIsSecondEdition(driver: Driver): boolean {
  return kindOf(driver).edition?.(driver) ?? false;
}

/** What a driver reads: channels and parts by their ids, its target left out. */
export function driverReads(driver: Driver): readonly Naming[] {
  return namingsIn(kindOf(driver).fields, driver);
}

/** The channels a driver reads. */
export function driverInputs(driver: Driver): readonly string[] {
  return driverReads(driver).flatMap(({ names, id: name }) => (names === 'channel' ? [name] : []));
}

export type DriverResult =
  { readonly ok: true; readonly value: CompiledDriver } | { readonly ok: false; readonly problem: Problem };

/** Compiles driver number `index` of the project, or says in one sentence why it can't be. */
export function compileDriver(driver: Driver, index: number, context: DriverContext): DriverResult {
  const made = kindOf(driver).make(driver, context);
  if ('message' in made) {
    const { at, message } = made;
    return { ok: false, problem: { pointer: jsonPointer('drivers', index, ...at), message } };
  }
  const { id: name, target, combine } = driver;
  const bare = {
    id: name,
    target: context.slot(target),
    add: combine === 'add',
    slots: [],
    parts: [],
    late: [],
  };
  return { ok: true, value: { ...bare, ...made } };
}

export * from './driver';
export { camProfile, LINKAGES, type CamProfile, type Linkage, type Mechanism } from './linkage';
export * from './expression/code';
export * from './expression/operations';
export * from './expression/machine-code';
export { compileExpression, type CompiledExpression } from './expression/compile';
export { FORMULA_WORDS } from './expression/functions';
