import { Injectable, inject } from '@angular/core';
import { greatestOf, leastOf, curveOf, framesPerSecond, type KeyRef } from '@kaizen/core';
import { Studio } from '../../state/studio';
import { Stage } from '../stage/stage';
import { Proposals, type Proposal } from '../stage/proposals';

/** After so long a rest the picture begins to move. */
const REST_MILLISECONDS = 450;

/** Resting on a shape: it is offered, and after a moment the legs it would fill play over and over; the playhead comes back when it ends. */
@Injectable({ providedIn: 'root' })
export class LegRest {
  private readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  private readonly proposals = inject(Proposals);
  private timer: ReturnType<typeof setTimeout> | undefined;
  private back: number | null = null;

  begin(offer: Proposal, refs: readonly KeyRef[]): void {
    this.proposals.show(offer);
    clearTimeout(this.timer);
    if (matchMedia('(prefers-reduced-motion: reduce)').matches || this.stage.playing()) return;
    this.timer = setTimeout(() => this.play(refs), REST_MILLISECONDS);
  }

  end(): void {
    clearTimeout(this.timer);
    this.timer = undefined;
    this.proposals.drop();
    if (this.back !== null) this.stage.scrub(this.back);
    this.back = null;
  }

  take(offer: Proposal): void {
    this.end();
    this.proposals.take(offer);
  }

  private play(refs: readonly KeyRef[]): void {
    const project = this.studio.project();
    if (!project) return;
    const ends = refs.flatMap(({ channel, frame }) => {
      const next = curveOf(project, channel)?.keys.find((key) => key.frame > frame);
      return next ? [next.frame] : [];
    });
    const [first, last] = [leastOf(refs.map(({ frame }) => frame)), greatestOf(ends)];
    this.back ??= this.stage.frame();
    const mine = this.timer;
    const began = performance.now();
    const rate = framesPerSecond(project.rate);
    const tick = (now: number) => {
      if (this.timer !== mine || this.back === null) return;
      const along = ((now - began) / 1000) * rate;
      this.stage.scrub(first + (Math.max(0, along) % (last - first + rate / 3)));
      if (this.stage.frame() > last) this.stage.scrub(last);
      requestAnimationFrame(tick);
    };
    requestAnimationFrame(tick);
  }
}
