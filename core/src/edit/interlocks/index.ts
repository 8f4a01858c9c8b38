export { holdInterlocks, interlockStanding, type InterlockStanding } from './hold-interlocks';
export { addInterlock, changeInterlock, removeInterlock, type InterlockWish } from './interlocks';
