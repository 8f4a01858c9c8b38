import type { Leg } from '../project';
import { camLaw, easeLaw, type Law } from '../law';

/** The law that fills a leg, or null where the leg is no law (a curve, a hold, a free fall). */
export function legLaw(leg: Leg): Law | null {
  switch (leg.kind) {
    case 'ease':
      return easeLaw(leg);
    case 'law':
      return camLaw(leg);
    case 'curve':
    case 'hold':
    case 'ballistic':
      return null;
  }
}
