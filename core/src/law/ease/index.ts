import type { EaseFamily, EaseLeg } from '../../project';
import type { Law } from '../law';
import { back } from './back';
import { bounce } from './bounce';
import { circle } from './circle';
import { elastic } from './elastic';
import { exp } from './exp';
import { poly } from './poly';
import { sine } from './sine';
import { slowAt } from './slow';

/** The ease families, slow at the start. One line a family. */
const FAMILIES: Readonly<Record<EaseFamily, (leg: EaseLeg) => Law>> = {
  sine: () => sine,
  quad: () => poly(2),
  cubic: () => poly(3),
  quart: () => poly(4),
  quint: () => poly(5),
  exp: () => exp,
  circle: () => circle,
  back: (leg) => back(leg.overshoot ?? 1.70158),
  elastic: (leg) => elastic(leg.amplitude ?? 1, leg.period ?? 0.3),
  bounce: () => bounce,
};

/** The law of an ease leg: the functions of the d3-ease 3 package with their derivatives. */
export function easeLaw(leg: EaseLeg): Law {
  return slowAt(FAMILIES[leg.family](leg), leg.slow);
}
