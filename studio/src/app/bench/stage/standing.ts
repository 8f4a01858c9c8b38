import { Injectable, inject } from '@angular/core';
import { constraintSpan, FAILURES, type Constraint, type Driver } from '@kaizen/core';
import { shownFrame } from '../../ui/amount';
import { Stage } from './stage';

/** How a driver or constraint stands at the playhead: a word, the whole sentence, and whether something is wrong. */
export interface State {
  readonly word: string;
  readonly whole: string;
  readonly bad: boolean;
}

const state = (word: string, whole = word, bad = false): State => ({ word, whole, bad });
type Words<T extends readonly string[]> = { readonly [Place in keyof T]: string };
/** What would help where something fails, by the reason's place in FAILURES. */
const HELP: Words<typeof FAILURES> = [
  '',
  'look for a division by 0 or a root of less than 0 in what it reads here',
  'longer pieces, or something nearer to reach for, would help',
  'shorter pieces, or something further away, would help',
  'move one of the two places away from the other, or give the axis a size that is not 0',
  'some damping, or another number of swings, would help',
];

function failing(place: number, frame: number): State {
  const reason = FAILURES[place]!;
  const whole = `Not met at f ${shownFrame(frame)}: ${reason}; ${HELP[place]!}`;
  return state(reason.split(': ').at(-1)!.split(',')[0]!, whole, true);
}

/** What drivers and constraints do at the playhead, for the rows and the sheets. */
@Injectable({ providedIn: 'root' })
export class Standing {
  private readonly stage = inject(Stage);

  ofConstraint(constraint: Constraint): State {
    if (constraint.muted) return state('muted', 'Muted: as if it were not there');
    const now = this.stage.now();
    const place = now?.program.constraints.findIndex(({ id }) => id === constraint.id) ?? -1;
    const reason = now && place >= 0 ? now.out.unmet[place]! : 0;
    if (reason > 0) return failing(reason, now?.frame ?? 0);
    const span = constraintSpan(constraint);
    const frame = now?.frame ?? 0;
    if (span && frame < span.start) return state('later', `It acts from frame ${span.start} on`);
    if (span && span.end !== null && frame > span.end)
      return state('over', `It acted up to frame ${span.end}`);
    return state('met', 'Met at the playhead');
  }

  ofDriver(driver: Driver): State {
    if (driver.muted) return state('muted', 'Muted: as if it were not there');
    const now = this.stage.now();
    const place = now?.program.drivers.findIndex(({ id }) => id === driver.id) ?? -1;
    const reason = now && place >= 0 ? now.out.failed[place]! : 0;
    return reason > 0
      ? failing(reason, now?.frame ?? 0)
      : state('drives', 'It gives the value at the playhead');
  }

  /** Why a driven channel keeps the value it would have without a driver, or null. */
  lostBy(channel: string): string | null {
    const now = this.stage.now();
    const slot = now?.program.structure.slots.get(channel);
    if (!now || slot === undefined || !now.program.isDriven(slot)) return null;
    const place = now.program.drivers.findIndex(({ target }, i) => target === slot && now.out.failed[i]! > 0);
    return place < 0 ? null : FAILURES[now.out.failed[place]!]!;
  }
}
