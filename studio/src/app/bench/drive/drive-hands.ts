import { Injectable, inject } from '@angular/core';
import {
  addCamPart,
  addDriver,
  areDriversBaked,
  assembleFourBar,
  assembleGears,
  assembleRope,
  assembleSliderCrank,
  assembleWheel,
  bakeDrivers,
  changeDriver,
  channelName,
  curveOf,
  echoRow,
  moveDriver,
  partOf,
  partProperties,
  removeDriver,
  splitChannel,
  unbakeDrivers,
  type Assembled,
  type CamSize,
  type Driver,
  type DriverName,
  type DriverWish,
  type EchoRow,
  type Project,
  type Result,
} from '@kaizen/core';
import { Studio } from '../../state/studio';
import { Notices } from '../../ui/notices';
import { Refusable } from '../stage/refusable';
import { nameOf } from '../stage/said';
import { channelLabel } from '../stage/channel-label';
import { PartPicker } from '../stage/picker';
import { Proposals } from '../stage/proposals';
import { Stage } from '../stage/stage';
import { DRIVER_WORDS } from './driver-words';
import { firstWish } from './first-wish';

/** Drivers by hand: made by picking, changed by number, baked to keys and brought back; mechanisms put together of parts. */
@Injectable({ providedIn: 'root' })
export class DriveHands {
  private readonly studio = inject(Studio);
  private readonly refusable = inject(Refusable);
  private readonly stage = inject(Stage);
  private readonly notices = inject(Notices);
  private readonly picker = inject(PartPicker);
  private readonly proposals = inject(Proposals);

  /** The part that keys and the palette mean: the one chosen last, else that of the channel chosen last. */
  partMeant(): string | null {
    const { parts, channels } = this.studio.bench();
    const [part, channel] = [parts.at(-1), channels.at(-1)];
    return part ?? (channel === undefined ? null : splitChannel(channel).part);
  }

  /** The first driver of that part that is such a one. */
  driverMeant<D extends Driver>(isSuch: (driver: Driver) => driver is D): D | null;
  driverMeant(isSuch: (driver: Driver) => boolean): Driver | null;
  driverMeant(isSuch: (driver: Driver) => boolean): Driver | null {
    const part = this.partMeant();
    const drivers = this.studio.project()?.drivers ?? [];
    return drivers.find((each) => splitChannel(each.target).part === part && isSuch(each)) ?? null;
  }

  /** What a change of a driver is called. */
  labelOf({ target }: Driver): string {
    const project = this.studio.project();
    return `Driver of ${project ? channelLabel(project, target).short : target}`;
  }

  /** The channel of a part that a new driver is for: the chosen one, else one that moves already, else its first place. */
  targetFor(part: string): string {
    const chosen = this.studio.bench().channels.findLast((channel) => splitChannel(channel).part === part);
    const project = this.stage.shown();
    const own = project && partOf(project, part);
    const keyed =
      own &&
      partProperties(own).find(({ property }) => curveOf(project, channelName(part, property))?.keys.length);
    return chosen ?? channelName(part, keyed?.property ?? 'translate.y');
  }

  /** Asks for what a new driver reads, a part in the view or a channel in the rows, and makes it. */
  ask(kind: DriverName, target: string): void {
    const project = this.studio.project();
    if (!project) return;
    const { part } = splitChannel(target);
    this.picker.ask({
      words: DRIVER_WORDS[kind].ask.replace('%s', channelLabel(project, target).full),
      refuse: (picked) =>
        kind === 'distance' && picked === part ? 'the part itself is no answer: pick another part' : null,
      take: (picked, _, channel) => this.make(kind, target, picked, channel ?? this.like(target, picked)),
    });
  }

  /** The channel of a part that is most like another: the same property, else its first. */
  private like(target: string, part: string): string {
    const project = this.studio.project();
    const { property, part: own } = splitChannel(target);
    const properties = (project && partOf(project, part) && partProperties(partOf(project, part)!)) ?? [];
    const fits = properties.some((each) => each.property === property) && part !== own;
    return channelName(part, fits ? property : (properties[0]?.property ?? 'translate.x'));
  }

  /** Drives a channel by another, in one of the ways. */
  drive(kind: DriverName, target: string, input: string): void {
    this.make(kind, target, splitChannel(input).part, input);
  }

  private make(kind: DriverName, target: string, part: string, input: string): void {
    const range = this.studio.project()?.range ?? { start: 0, end: 1, loop: false };
    const wish = firstWish(kind, { own: splitChannel(target).part, part, input, range });
    this.refusable.edit(`Drive ${this.label(target)}`, (project) => {
      const made = addDriver(project, kind, target, wish);
      return made.ok ? { ok: true, value: made.value.project } : made;
    });
  }

  change(id: string, label: string, wish: DriverWish): void {
    this.refusable.edit(label, (project) => changeDriver(project, id, wish));
  }

  /** Shows a driver changed, without keeping it; null: as it is again. */
  show(id: string, label: string, wish: DriverWish | null): void {
    if (!wish) this.proposals.drop();
    else
      this.proposals.show({
        label,
        edit: (project) => {
          const made = changeDriver(project, id, wish);
          return made.ok ? made.value : project;
        },
      });
  }

  move(id: string, by: -1 | 1): void {
    this.studio.edit('Order of drivers', (project) => moveDriver(project, id, by));
  }

  remove(id: string): void {
    this.studio.edit('Remove a driver', (project) => removeDriver(project, id));
  }

  isBaked(channel: string): boolean {
    const project = this.studio.project();
    return project !== null && areDriversBaked(project, channel);
  }

  bake(channel: string): void {
    this.refusable.edit(`Bake ${this.label(channel)}`, (project) => bakeDrivers(project, channel));
  }

  unbake(channel: string): void {
    this.studio.edit(`Bring back the drivers of ${this.label(channel)}`, (project) =>
      unbakeDrivers(project, channel),
    );
  }

  echoRow(leader: string, others: readonly string[], row: EchoRow): void {
    this.refusable.edit('Echo in a row', (project) => echoRow(project, leader, others, row));
  }

  /** Asks for three parts one after the other, and puts them together as a crank, a rod and what it pushes. */
  askSliderCrank(crank: string): void {
    this.askTwo(
      crank,
      (name) => `Pick the rod on the pin of ${name}`,
      (name) => `Pick what ${name} pushes`,
      (rod, slider) =>
        this.assemble('Crank and rod', (project) =>
          assembleSliderCrank(project, { crank, rod, slider }, this.stage.frame()),
        ),
    );
  }

  /** Asks for the wagon on whose way a wheel rolls; it goes along the axis on which it is keyed, else X. */
  askWheel(wheel: string): void {
    this.askOne(
      wheel,
      (name) => `Pick the wagon on whose way ${name} rolls`,
      (wagon) =>
        this.assemble('Wheel on its wagon', (now) =>
          assembleWheel(now, { wheel, wagon }, this.wayOf(wagon), this.stage.frame()),
        ),
    );
  }

  /** Asks for what the rope of a drum pulls; it goes along the axis on which it is keyed, else X. */
  askRope(drum: string): void {
    this.askOne(
      drum,
      (name) => `Pick what the rope on ${name} pulls`,
      (load) =>
        this.assemble('Rope and drum', (now) =>
          assembleRope(now, { drum, load }, this.wayOf(load), this.stage.frame()),
        ),
    );
  }

  /** Asks for the other three pieces of four bars: what hangs on the crank's pin, what rocks, and the pin between them. */
  askFourBars(crank: string): void {
    this.askTwo(
      crank,
      (name) => `Pick the coupler on the pin of ${name}`,
      () => 'Pick the rocker that the coupler moves',
      (coupler, rocker) =>
        this.askOne(
          rocker,
          (name) => `Pick the pin between the coupler and ${name}`,
          (pin) =>
            this.assemble('Four bars', (project) =>
              assembleFourBar(project, { crank, coupler, rocker, pin }, this.stage.frame()),
            ),
        ),
    );
  }

  /** The axis along which a part is keyed, else X. */
  private wayOf(part: string): 'x' | 'y' | 'z' {
    const project = this.studio.project();
    const keyed = (['x', 'z', 'y'] as const).find(
      (letter) => project && curveOf(project, channelName(part, `translate.${letter}`))?.keys.length,
    );
    return keyed ?? 'x';
  }

  askGears(driving: string): void {
    this.askOne(
      driving,
      (name) => `Pick the gear that ${name} turns`,
      (driven) =>
        this.assemble('Gears', (project) => assembleGears(project, { driving, driven }, this.stage.frame())),
    );
  }

  /** Makes the disc of a cam a part on its shaft. */
  makeCam(driver: string, size: CamSize): void {
    let read = '';
    this.refusable.edit('Disc of a cam', (project) => {
      const made = addCamPart(project, driver, size, this.stage.frame());
      if (made.ok) read = made.value.read;
      return made.ok ? { ok: true, value: made.value.project } : made;
    });
    if (read !== '') this.notices.tell(`A disc stands on the shaft: ${read}`);
  }

  private askOne(first: string, words: (name: string) => string, take: (part: string) => void): void {
    const project = this.studio.project();
    if (!project) return;
    this.picker.ask({
      words: words(nameOf(project, first)),
      refuse: (part) =>
        part === first ? `${nameOf(project, part)} itself is no answer: pick another part` : null,
      take,
    });
  }

  private askTwo(
    first: string,
    words: (name: string) => string,
    then: (name: string) => string,
    take: (second: string, third: string) => void,
  ): void {
    this.askOne(first, words, (second) => this.askOne(second, then, (third) => take(second, third)));
  }

  private assemble(label: string, edit: (project: Project) => Result<Assembled>): void {
    let read = '';
    this.refusable.edit(label, (project) => {
      const made = edit(project);
      if (made.ok) read = made.value.read;
      return made.ok ? { ok: true, value: made.value.project } : made;
    });
    if (read !== '') this.notices.tell(`Read off the parts: ${read}`);
  }

  private label(channel: string): string {
    const project = this.studio.project();
    return project ? channelLabel(project, channel).full : channel;
  }
}
