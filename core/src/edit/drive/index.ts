export { areDriversBaked, bakeDrivers, unbakeDrivers } from './bake-drivers';
export {
  addDriver,
  changeDriver,
  moveDriver,
  removeDriver,
  type DriverName,
  type DriverWish,
} from './drivers';
export { echoRow, type EchoRow } from './echo-row';
export { assembleGears, assembleSliderCrank, assembleWheel, type Assembled } from './mechanisms';
