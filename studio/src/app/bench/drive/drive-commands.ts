import { Injectable, inject } from '@angular/core';
import { partOf, type Driver, type DriverName } from '@kaizen/core';
import { onItem, type Command } from '../../commands/command';
import { Studio } from '../../state/studio';
import type { DriveAsked } from './drive-drag';
import { DriveHands } from './drive-hands';
import { DriverTableCommands } from './driver-table-commands';
import { DRIVER_WORDS } from './driver-words';
import { MapInChart } from './map-in-chart';

/** Driving one motion from another: drivers by picking, their order, baking, and mechanisms of parts. */
@Injectable({ providedIn: 'root' })
export class DriveCommands {
  private readonly studio = inject(Studio);
  private readonly hands = inject(DriveHands);
  private readonly place = inject(MapInChart);
  private readonly tables = inject(DriverTableCommands);

  list(): readonly Command[] {
    return [...this.making(), ...this.mechanisms(), ...this.cards(), ...this.tables.list()];
  }

  private readonly canDrive = () => !this.studio.readOnly() && this.hands.partMeant() !== null;

  private making(): readonly Command[] {
    const names = Object.keys(DRIVER_WORDS) as DriverName[];
    const meant = () => {
      const part = this.hands.partMeant();
      return part === null ? null : { target: this.hands.targetFor(part), input: null };
    };
    return names.map((kind) =>
      onItem<Pick<DriveAsked, 'target' | 'input'>>({
        id: `drive.${kind}`,
        label: `Drive the chosen channel: ${DRIVER_WORDS[kind].label.replace(' …', '').toLowerCase()}`,
        group: 'Pose',
        meant,
        when: () => !this.studio.readOnly(),
        run: ({ target, input }) =>
          input === null ? this.hands.ask(kind, target) : this.hands.drive(kind, target, input),
      }),
    );
  }

  private mechanisms(): readonly Command[] {
    const onPart = (id: string, label: string, run: (part: string) => void): Command => ({
      id,
      label,
      group: 'Pose',
      when: () => {
        const project = this.studio.project();
        const part = this.hands.partMeant();
        return this.canDrive() && project !== null && partOf(project, part!) !== undefined;
      },
      run: () => run(this.hands.partMeant()!),
    });
    return [
      onPart('drive.slider-crank', 'Mechanism: this crank, its rod, and what it pushes: pick them', (part) =>
        this.hands.askSliderCrank(part),
      ),
      onPart('drive.wheel', 'Mechanism: this wheel on the way of its wagon: pick it', (part) =>
        this.hands.askWheel(part),
      ),
      onPart('drive.gears', 'Mechanism: this gear turns another: pick it', (part) =>
        this.hands.askGears(part),
      ),
      onPart('drive.rope', 'Mechanism: the rope on this drum pulls a load: pick it', (part) =>
        this.hands.askRope(part),
      ),
      onPart(
        'drive.four-bars',
        'Mechanism: this crank, its coupler, the rocker and their pin: pick them',
        (part) => this.hands.askFourBars(part),
      ),
    ];
  }

  private cards(): readonly Command[] {
    const { hands } = this;
    const about = (id: string, label: string, run: (driver: Driver) => void) =>
      onItem<Driver>({
        id,
        label,
        group: 'Pose',
        meant: () => hands.driverMeant(() => true),
        when: () => !this.studio.readOnly(),
        run,
      });
    const onChannel = (
      id: string,
      label: string,
      baked: boolean,
      run: (channel: string) => void,
    ): Command => ({
      ...about(id, label, ({ target }) => run(target)),
      when: (item) => {
        const driver = item as Driver | undefined;
        const target = driver?.target ?? this.hands.targetFor(this.hands.partMeant() ?? '');
        const drivers = this.studio.project()?.drivers.filter((each) => each.target === target) ?? [];
        return !this.studio.readOnly() && drivers.length > 0 && hands.isBaked(target) === baked;
      },
    });
    const { place } = this;
    return [
      onItem<Driver>({
        id: 'drive.in-chart',
        label: 'The map of the part at full size in the Chart, or time again',
        group: 'Chart',
        meant: () => hands.driverMeant(({ kind }) => kind === 'map'),
        on: ({ id }) => place.id() === id,
        run: ({ id }) => place.id.set(place.id() === id ? null : id),
      }),
      about('drive.mute', 'Mute a driver of the part, or let it act', ({ id, muted }) =>
        hands.change(id, muted ? 'Let a driver act' : 'Mute a driver', { muted: !muted }),
      ),
      about('drive.earlier', 'Driver one place earlier', ({ id }) => hands.move(id, -1)),
      about('drive.later', 'Driver one place later', ({ id }) => hands.move(id, 1)),
      about('drive.remove', 'Remove a driver', ({ id }) => hands.remove(id)),
      onChannel('drive.bake', 'Bake what drives the channel to keys', false, (channel) =>
        hands.bake(channel),
      ),
      onChannel('drive.unbake', 'Bring back what drove the channel before it was baked', true, (channel) =>
        hands.unbake(channel),
      ),
    ];
  }
}
