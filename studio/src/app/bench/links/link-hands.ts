import { Injectable, inject, signal } from '@angular/core';
import {
  changeTurnOrder,
  movePivot,
  partOf,
  placePart,
  ride,
  whyNotRide,
  type Keeps,
  type Project,
  type Reframed,
  type Result,
  type Ridden,
  type TurnOrder,
  type Vec3,
} from '@kaizen/core';
import { Studio } from '../../state/studio';
import { Notices } from '../../ui/notices';
import { PartPicker } from '../stage/picker';
import { Stage } from '../stage/stage';
import { nameOf, said } from '../stage/said';
import { riddenWords } from './words';

/** What links parts by hand: riding, pivots, the order of turns. Each gives one undo step and one line about what came of it. */
@Injectable({ providedIn: 'root' })
export class LinkHands {
  private readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  private readonly notices = inject(Notices);
  private readonly picker = inject(PartPicker);
  /** What stays when a part comes to ride on another. */
  readonly keeps = signal<Keeps>('place');

  /** What riding would come to, to be told before it is let go; null where it is refused. */
  wouldRide(part: string, parent: string | null): Ridden | null {
    const project = this.studio.project();
    if (!project) return null;
    const made = ride(project, part, parent, this.keeps(), this.stage.frame());
    return made.ok ? made.value : null;
  }

  whyNot(part: string, parent: string | null): string | null {
    const project = this.studio.project();
    return project ? whyNotRide(project, part, parent) : 'no project is open';
  }

  ride(part: string, parent: string | null): void {
    const project = this.studio.project();
    if (!project) return;
    if (partOf(project, part)?.parent === parent) return;
    const made = ride(project, part, parent, this.keeps(), this.stage.frame());
    if (!made.ok) {
      this.notices.warn(said(made.problems));
      return;
    }
    const [child, above] = [nameOf(project, part), parent === null ? null : nameOf(project, parent)];
    this.studio.edit(
      above === null ? `Release ${child}` : `${child} rides on ${above}`,
      () => made.value.project,
    );
    const first = above === null ? `${child} rides on nothing now` : `${child} rides on ${above}`;
    this.notices.tell(`${first}: ${riddenWords(made.value, this.keeps())}`);
  }

  /** Puts a part beside another in the list. */
  place(part: string, beside: string, after: boolean): void {
    this.studio.edit('Order of parts', (project) => placePart(project, part, beside, after));
  }

  askRide(part: string): void {
    const project = this.studio.project();
    if (!project) return;
    this.picker.ask({
      words: `Pick what ${nameOf(project, part)} will ride on`,
      refuse: (parent) => this.whyNot(part, parent),
      take: (parent) => this.ride(part, parent),
    });
  }

  askRider(parent: string): void {
    const project = this.studio.project();
    if (!project) return;
    this.picker.ask({
      words: `Pick what will ride on ${nameOf(project, parent)}`,
      refuse: (part) => this.whyNot(part, parent),
      take: (part) => this.ride(part, parent),
    });
  }

  movePivot(part: string, pivot: Vec3): void {
    this.movePivots([part], () => pivot);
  }

  /** Moves the pivots of some parts, each to what it becomes. */
  movePivots(parts: readonly string[], to: (pivot: Vec3) => Vec3): void {
    this.reframe(
      parts,
      'Pivot',
      (project, id) => movePivot(project, id, to(partOf(project, id)!.pivot)),
      'turned about another point now, and no frame moved',
    );
  }

  changeTurnOrder(parts: readonly string[], order: TurnOrder): void {
    this.reframe(
      parts,
      `Turn order ${order}`,
      (project, id) => changeTurnOrder(project, id, order),
      'turns told in another order now, and no frame moved',
    );
  }

  /** One step for all of the parts, or none where it can't be done with one of them. */
  private reframe(
    parts: readonly string[],
    label: string,
    edit: (project: Project, part: string) => Result<Reframed>,
    done: string,
  ): void {
    const before = this.studio.project();
    if (!before) return;
    let project = before;
    const everyFrame: string[] = [];
    for (const id of parts.filter((each) => partOf(before, each))) {
      const made = edit(project, id);
      if (!made.ok) {
        this.notices.warn(said(made.problems));
        return;
      }
      project = made.value.project;
      if (made.value.everyFrame) everyFrame.push(nameOf(project, id));
    }
    const whose = parts.length === 1 ? nameOf(before, parts[0]!) : `${parts.length} parts`;
    this.studio.edit(`${label} of ${whose}`, () => project);
    if (everyFrame.length > 0)
      this.notices.tell(
        `${everyFrame.join(', ')}: ${done}; that needed a key on every frame. Simplify, in the sheet Curve, makes fewer`,
      );
  }
}
