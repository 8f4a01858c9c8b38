export { areDriversBaked, bakeDrivers, unbakeDrivers } from './bake-drivers';
export {
  addDriver,
  changeDriver,
  moveDriver,
  removeDriver,
  type DriverName,
  type DriverWish,
} from './drivers';
export { copiesInPhase, type Phase } from './copies-in-phase';
export { echoRow, type EchoRow } from './echo-row';
export type { Assembled } from './assembly';
export { addCamPart, readCam, type CamSize } from './cam-part';
export { assembleFourBar, type FourBars } from './four-bar';
export { assembleGears, assembleSliderCrank, assembleWheel } from './mechanisms';
export { assembleRope } from './rope';
