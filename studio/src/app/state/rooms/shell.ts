import { field, text } from './field';

/** The frame around the rooms: which tab of the side sheet is open. */
export const shellFields = {
  sheet: field<string>('part', text),
};
