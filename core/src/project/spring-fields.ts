import { frames, number, orNull, otherwise, positive, wholeFrames, type Fields } from './field';

/** The fields of a damped spring: the driver `follow` has them, and the lag of a constraint. */
export const SPRING_FIELDS: Fields = {
  frequency: positive('Hz'),
  damping: number({ minimum: 0 }),
  start: otherwise(frames(), 0),
  loop: otherwise(orNull(wholeFrames()), null),
};
