/** Keys that, with Ctrl, do something to the text of a field. */
const TEXT_KEYS: ReadonlySet<string> = new Set([
  'a',
  'c',
  'v',
  'x',
  'arrowleft',
  'arrowright',
  'home',
  'end',
  'backspace',
  'delete',
]);
const UNDO_KEYS: ReadonlySet<string> = new Set(['z', 'y']);

/**
 * Whether a Ctrl combination is about the text in a field. Undo is only where something was typed that is not taken yet: a field
 * tells what it shows in `data-shown`.
 */
export function isAboutText(event: KeyboardEvent, field: Element): boolean {
  const key = event.key.toLowerCase();
  if (TEXT_KEYS.has(key)) return true;
  if (!UNDO_KEYS.has(key)) return false;
  const shown = field.getAttribute('data-shown');
  return shown === null || (field as HTMLInputElement).value !== shown;
}
