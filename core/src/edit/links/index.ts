export { bakeConstraints, isBaked, unbakeConstraints } from './bake-constraints';
export {
  addConstraint,
  changeConstraint,
  moveConstraint,
  moveSpan,
  removeConstraint,
  type ConstraintName,
  type ConstraintWish,
} from './constraints';
export { changeTurnOrder, movePivot, type Reframed } from './pivot';
export { armOf, plantArm, type Arm } from './plant-arm';
export { ride, whyNotRide, type Keeps, type Ridden } from './ride';
