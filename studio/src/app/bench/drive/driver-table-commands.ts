import { Injectable, inject } from '@angular/core';
import type { CamSize, Driver, DriverWish, ExpressionDriver, LinkageDriver, MapDriver } from '@kaizen/core';
import { onItem, type Command, type ItemCommand } from '../../commands/command';
import { Studio } from '../../state/studio';
import { DriveHands } from './drive-hands';
import {
  inputAdded,
  inputRemoved,
  isCam,
  isSmooth,
  pointAdded,
  pointRemoved,
  smoothSwitched,
  stretchAdded,
  stretchesOf,
  stretchRemoved,
  type TableLine,
} from './driver-tables';

/** The disc of a cam: of which driver, and how big. */
export interface CamDisc {
  readonly driver: LinkageDriver;
  readonly size: CamSize;
}
/** What a disc begins with, in metres. */
export const CAM_SIZE: CamSize = { roller: 0.03, width: 0.08 };

const isMap = (driver: Driver): driver is MapDriver => driver.kind === 'map';
const isFormula = (driver: Driver): driver is ExpressionDriver => driver.kind === 'expression';

/** Lines of drivers' tables: points of a map, stretches of a cam, inputs of a formula. */
@Injectable({ providedIn: 'root' })
export class DriverTableCommands {
  private readonly studio = inject(Studio);
  private readonly hands = inject(DriveHands);

  list(): readonly Command[] {
    return [...this.points(), ...this.stretches(), ...this.inputs()];
  }

  private about<T>(command: Omit<ItemCommand<T>, 'group'>): Command {
    const { when } = command;
    return onItem<T>({
      ...command,
      group: 'Pose',
      when: (item) => !this.studio.readOnly() && (when?.(item) ?? true),
    });
  }

  private change(driver: Driver, wish: DriverWish): void {
    this.hands.change(driver.id, this.hands.labelOf(driver), wish);
  }

  private points(): readonly Command[] {
    const meant = () => this.hands.driverMeant(isMap);
    const last = () => {
      const driver = meant();
      return driver && { driver, at: driver.curve.keys.length - 1 };
    };
    return [
      this.about<MapDriver>({
        id: 'drive.point-add',
        label: 'Map of the part: another point after its last',
        meant,
        run: (driver) => this.change(driver, pointAdded(driver)),
      }),
      this.about<TableLine<MapDriver>>({
        id: 'drive.point-remove',
        label: 'Map of the part: remove its last point',
        meant: last,
        when: ({ driver }) => driver.curve.keys.length > 1,
        run: (point) => this.change(point.driver, pointRemoved(point)),
      }),
      this.about<MapDriver>({
        id: 'drive.smooth',
        label: 'Map of the part: smooth through its points, or straight between them',
        meant,
        on: isSmooth,
        run: (driver) => this.change(driver, smoothSwitched(driver)),
      }),
    ];
  }

  private stretches(): readonly Command[] {
    const meant = () => this.hands.driverMeant(isCam);
    const last = () => {
      const driver = meant();
      return driver && { driver, at: stretchesOf(driver).length - 1 };
    };
    const disc = () => {
      const driver = meant();
      return driver && { driver, size: CAM_SIZE };
    };
    return [
      this.about<LinkageDriver>({
        id: 'drive.stretch-add',
        label: 'Cam of the part: halve its last stretch',
        meant,
        run: (driver) => this.change(driver, stretchAdded(driver)),
      }),
      this.about<TableLine<LinkageDriver>>({
        id: 'drive.stretch-remove',
        label: 'Cam of the part: remove its last stretch',
        meant: last,
        when: ({ driver }) => stretchesOf(driver).length > 1,
        run: (stretch) => this.change(stretch.driver, stretchRemoved(stretch)),
      }),
      this.about<CamDisc>({
        id: 'drive.cam-disc',
        label: 'Cam of the part: make its disc a part on the shaft',
        meant: disc,
        run: ({ driver, size }) => this.hands.makeCam(driver.id, size),
      }),
    ];
  }

  private inputs(): readonly Command[] {
    const meant = () => this.hands.driverMeant(isFormula);
    const last = () => {
      const driver = meant();
      const name = driver && Object.keys(driver.inputs).at(-1);
      return driver && name !== null && name !== undefined ? { driver, name } : null;
    };
    return [
      this.about<ExpressionDriver>({
        id: 'drive.input-add',
        label: 'Formula of the part: another input',
        meant,
        run: (driver) => this.change(driver, inputAdded(driver)),
      }),
      this.about<{ readonly driver: ExpressionDriver; readonly name: string }>({
        id: 'drive.input-remove',
        label: 'Formula of the part: remove its last input',
        meant: last,
        run: ({ driver, name }) => this.change(driver, inputRemoved(driver, name)),
      }),
    ];
  }
}
