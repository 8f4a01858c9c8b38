import {
  channelName,
  splitChannel,
  type Driver,
  type DriverWish,
  type ExpressionDriver,
  type LinkageDriver,
  type MapDriver,
} from '@kaizen/core';

/** A line of a driver's table: a point of a map, a stretch of a cam. */
export interface TableLine<D extends Driver> {
  readonly driver: D;
  readonly at: number;
}

/** One stretch of a cam, as the file has it. */
export interface Stretch {
  readonly to: number;
  readonly lift?: number;
  readonly law: string;
}

const withKeys = ({ curve }: MapDriver, keys: MapDriver['curve']['keys']): DriverWish => ({
  curve: { ...curve, keys },
});

/** One more point after the last, as far from it as the one before. */
export function pointAdded(driver: MapDriver): DriverWish {
  const { keys } = driver.curve;
  const [last, before] = [keys.at(-1), keys.at(-2)];
  if (!last) return {};
  const step = before ? last.frame - before.frame : 1;
  return withKeys(driver, [...keys, { ...last, frame: last.frame + step }]);
}

export function pointRemoved({ driver, at }: TableLine<MapDriver>): DriverWish {
  return withKeys(
    driver,
    driver.curve.keys.filter((_, i) => i !== at),
  );
}

export function isSmooth({ curve }: MapDriver): boolean {
  return curve.keys.some(({ out }) => out.mode === 'smooth');
}

/** Smooth through all points where it was straight between them, and the other way round. */
export function smoothSwitched(driver: MapDriver): DriverWish {
  const mode = isSmooth(driver) ? 'linear' : 'smooth';
  return withKeys(
    driver,
    driver.curve.keys.map((key) => ({ ...key, in: { ...key.in, mode }, out: { ...key.out, mode } })),
  );
}

export function isCam(driver: Driver): driver is LinkageDriver {
  return driver.kind === 'linkage' && driver.linkage === 'cam';
}

export function stretchesOf({ params }: LinkageDriver): readonly Stretch[] {
  return params['program'] as readonly Stretch[];
}

export function withProgram({ params }: LinkageDriver, program: readonly Stretch[]): DriverWish {
  return { params: { ...params, program } };
}

/** Halves the last stretch. */
export function stretchAdded(driver: LinkageDriver): DriverWish {
  const list = stretchesOf(driver);
  const last = list.at(-1)!;
  const from = list.at(-2)?.to ?? 0;
  return withProgram(driver, [...list.slice(0, -1), { ...last, to: (from + last.to) / 2 }, last]);
}

/** Without a stretch; the last one that is left goes on to the end of the turn. */
export function stretchRemoved({ driver, at }: TableLine<LinkageDriver>): DriverWish {
  const list = stretchesOf(driver);
  const left = list.filter((_, i) => i !== at);
  const end = list.at(-1)!.to;
  return withProgram(
    driver,
    left.map((each, i) => (i === left.length - 1 ? { ...each, to: end } : each)),
  );
}

/** Letters that a formula reads its inputs by, the usual ones first; e is a number. */
const LETTERS = [...'xyzabcdfghijklmnopqrstuvw'];

/** One more input of a formula, by a letter that is free: what it reads first already, else a place of its part. */
export function inputAdded({ inputs, target }: ExpressionDriver): DriverWish {
  const name = LETTERS.find((letter) => !(letter in inputs));
  const { part, property } = splitChannel(target);
  const other = property === 'translate.x' ? 'translate.y' : 'translate.x';
  const channel = Object.values(inputs)[0] ?? channelName(part, other);
  return name === undefined ? {} : { inputs: { ...inputs, [name]: channel } };
}

export function inputRemoved({ inputs }: ExpressionDriver, name: string): DriverWish {
  return { inputs: Object.fromEntries(Object.entries(inputs).filter(([each]) => each !== name)) };
}
