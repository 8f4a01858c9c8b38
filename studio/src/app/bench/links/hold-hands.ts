import { Injectable, inject } from '@angular/core';
import {
  addConstraint,
  armOf,
  bakeConstraints,
  changeConstraint,
  constraintSays,
  moveConstraint,
  partOf,
  plantArm,
  removeConstraint,
  splitChannel,
  unbakeConstraints,
  type ConstraintName,
  type ConstraintWish,
  type Project,
  type Result,
  type Vec3,
} from '@kaizen/core';
import { Studio } from '../../state/studio';
import { Notices } from '../../ui/notices';
import { PathHands } from './path-hands';
import { PartPicker } from '../stage/picker';
import { Stage } from '../stage/stage';
import { nameOf, said } from '../stage/said';

/** Frames that a new span has where no keys say how long. */
const NEW_SPAN = 24;

/** Frames in which the end of an arm goes on from where it was planted, so that it does not jump. */
const ARM_FADE = 12;

/** Constraints by hand: made by picking, changed by number, baked to keys and brought back. */
@Injectable({ providedIn: 'root' })
export class HoldHands {
  private readonly studio = inject(Studio);
  private readonly stage = inject(Stage);
  private readonly notices = inject(Notices);
  private readonly picker = inject(PartPicker);
  private readonly paths = inject(PathHands);

  /** The frames of a new span: those of the chosen keys of a part, else from the playhead on. */
  spanFor(part: string): { readonly start: number; readonly end: number } {
    const { keys } = this.studio.bench();
    const frames = keys
      .filter(({ channel }) => splitChannel(channel).part === part)
      .map(({ frame }) => frame);
    const all = frames.length > 1 ? frames : keys.map(({ frame }) => frame);
    if (new Set(all).size > 1) return { start: Math.min(...all), end: Math.max(...all) };
    const start = this.stage.frame();
    return {
      start,
      end: Math.max(start + 1, Math.min(start + NEW_SPAN, this.studio.project()?.range.end ?? Infinity)),
    };
  }

  /** Asks for the part that a new constraint is about, and makes it. */
  askConstraint(kind: 'attach' | 'aim' | 'chase', part: string): void {
    const project = this.studio.project();
    if (!project) return;
    const name = nameOf(project, part);
    const words = {
      attach: `Pick what carries ${name}`,
      aim: `Pick what ${name} will aim at`,
      chase: `Pick what ${name} will go with`,
    }[kind];
    this.picker.ask({
      words,
      refuse: (target) => (target === part ? `${name} itself is no answer: pick another part` : null),
      take: (target) => this.constrain(kind, part, this.wishFor(kind, part, target)),
    });
  }

  private wishFor(kind: 'attach' | 'aim' | 'chase', part: string, target: string): ConstraintWish {
    if (kind === 'attach') return { target, ...this.spanFor(part) };
    if (kind === 'aim') return { target };
    return { target, offset: this.offsetOf(part, target) };
  }

  /** How far a part is from another at the playhead, in the world's axes: what a chase keeps. */
  private offsetOf(part: string, target: string): Vec3 {
    const now = this.stage.now();
    const place = (id: string): Vec3 => {
      const i = now?.program.structure.partIndex.get(id) ?? -1;
      const world = now?.out.world[i];
      const pivot = now?.program.structure.parts[i]?.pivot;
      if (!world || !pivot) return [0, 0, 0];
      const along = (row: number) =>
        world[row]! * pivot[0] + world[4 + row]! * pivot[1] + world[8 + row]! * pivot[2] + world[12 + row]!;
      return [along(0), along(1), along(2)];
    };
    const [own, other] = [place(part), place(target)];
    const tidy = (n: number) => Math.round((own[n]! - other[n]!) * 1e6) / 1e6;
    return [tidy(0), tidy(1), tidy(2)];
  }

  /** Asks for the target of an arm that ends in a part: its two links are those it hangs on. */
  askReach(tip: string): void {
    const project = this.studio.project();
    const arm = project && armOf(project, tip);
    if (!project || !arm) {
      this.notices.warn(
        'Reach bends an arm of two links: choose the part at its end, which hangs on the lower link.',
      );
      return;
    }
    const name = nameOf(project, tip);
    this.picker.ask({
      words: `Pick what ${name} will reach for`,
      refuse: (target) =>
        [arm.upper, arm.lower, tip].includes(target)
          ? `${nameOf(project, target)} is a part of the arm itself`
          : null,
      take: (target) => this.constrain('reach', arm.upper, { middle: arm.lower, tip, target }),
    });
  }

  askAlong(part: string): void {
    const project = this.studio.project();
    if (!project) return;
    const paths = project.parts.filter(({ kind }) => kind === 'path');
    if (paths.length === 0) {
      this.paths.draw((path) => this.goAlong(part, path));
      return;
    }
    this.picker.ask({
      words: `Pick the path that ${nameOf(project, part)} will go along`,
      refuse: (path) =>
        partOf(project, path)?.kind === 'path' ? null : `${nameOf(project, path)} is no path`,
      take: (path) => this.goAlong(part, path),
    });
  }

  /** The way along a path is a number of the part’s own, so that it can be keyed. */
  private goAlong(part: string, path: string): void {
    const distance = `${part}/custom.way`;
    this.make(`${this.name(part)} goes along ${this.name(path)}`, (project) => {
      const has = partOf(project, part)?.custom.some(({ name }) => name === 'way');
      const parts = project.parts.map((each) =>
        each.id === part && !has
          ? { ...each, custom: [...each.custom, { name: 'way', value: 0, unit: 'm' }] }
          : each,
      );
      return addConstraint({ ...project, parts }, 'along', part, { path, distance });
    });
  }

  heading(part: string): void {
    this.constrain('heading', part, {});
  }

  plant(part: string): void {
    this.constrain('plant', part, this.spanFor(part));
  }

  /** Plants the end of an arm, its elbow bending, from the first to the last chosen key. */
  plantArm(tip: string): void {
    const { start, end } = this.spanFor(tip);
    this.make(`Plant ${this.name(tip)}`, (project) => plantArm(project, tip, start, end, ARM_FADE));
  }

  constrain(kind: ConstraintName, part: string, wish: ConstraintWish): void {
    this.make(`${this.name(part)}: ${kind}`, (project) => addConstraint(project, kind, part, wish));
  }

  /** Makes something of a project that may be refused, and says why where it is. */
  private make(label: string, edit: (project: Project) => Result<{ readonly project: Project }>): void {
    const project = this.studio.project();
    if (!project) return;
    const made = edit(project);
    if (!made.ok) {
      this.notices.warn(said(made.problems));
      return;
    }
    const before = new Set(project.constraints.map(({ id }) => id));
    this.studio.edit(label, () => made.value.project);
    const fresh = made.value.project.constraints.filter(({ id }) => !before.has(id));
    const words = fresh.map((each) => `${this.name(each.part)} ${constraintSays(made.value.project, each)}`);
    if (words.length > 0) this.notices.tell(words.join('; '));
  }

  change(id: string, label: string, wish: ConstraintWish): void {
    const project = this.studio.project();
    if (!project) return;
    const made = changeConstraint(project, id, wish);
    if (made.ok) this.studio.edit(label, () => made.value);
    else this.notices.warn(said(made.problems));
  }

  move(id: string, by: -1 | 1): void {
    this.studio.edit(by < 0 ? 'Constraint earlier' : 'Constraint later', (project) =>
      moveConstraint(project, id, by),
    );
  }

  remove(id: string): void {
    this.studio.edit('Remove a constraint', (project) => removeConstraint(project, id));
  }

  bake(part: string): void {
    const project = this.studio.project();
    if (!project) return;
    const made = bakeConstraints(project, part);
    if (!made.ok) {
      this.notices.warn(said(made.problems));
      return;
    }
    this.studio.edit(`Bake what holds ${this.name(part)}`, () => made.value);
    this.notices.tell(
      'Baked to keys on every frame. Bring back lets the constraints act again, with the keys from before',
    );
  }

  unbake(part: string): void {
    this.studio.edit(`Bring back what holds ${this.name(part)}`, (project) =>
      unbakeConstraints(project, part),
    );
  }

  private name(part: string): string {
    const project = this.studio.project();
    return project ? nameOf(project, part) : part;
  }
}
