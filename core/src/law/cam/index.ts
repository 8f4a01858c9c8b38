import type { CamLaw, LawLeg } from '../../project';
import type { Law } from '../law';
import { cycloidal } from './cycloidal';
import { harmonic } from './harmonic';
import { modifiedSine } from './modified-sine';
import { modifiedTrapezoid } from './modified-trapezoid';
import { poly345, poly4567 } from './polynomial';
import { ramps } from './ramps';

const THIRD = 1 / 3;

/** The cam laws, a rise of 1 in time 1 (contract §3). One line a law. */
const LAWS: Readonly<Record<CamLaw, (leg: LawLeg) => Law>> = {
  harmonic: () => harmonic,
  cycloidal: () => cycloidal,
  'poly-345': () => poly345,
  'poly-4567': () => poly4567,
  'modified-sine': () => modifiedSine,
  'modified-trapezoid': () => modifiedTrapezoid,
  trapezoid: (leg) => ramps(leg.accelerate ?? THIRD, leg.decelerate ?? THIRD, 0),
  's-curve': (leg) => ramps(leg.accelerate ?? THIRD, leg.decelerate ?? THIRD, leg.smoothing ?? 1),
};

export function camLaw(leg: LawLeg): Law {
  return LAWS[leg.law](leg);
}
