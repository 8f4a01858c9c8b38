const NAMED: Readonly<Record<string, string>> = {
  ' ': 'Space',
  ArrowLeft: '←',
  ArrowRight: '→',
  ArrowUp: '↑',
  ArrowDown: '↓',
  Escape: 'Esc',
};

/** A key press as it is written: `Ctrl+Shift+Z`, `Shift+0`, `Space`, `?`. Empty for a modifier alone. */
export function shortcutOfEvent(
  event: Pick<KeyboardEvent, 'key' | 'code' | 'ctrlKey' | 'metaKey' | 'shiftKey' | 'altKey'>,
): string {
  if (['Control', 'Shift', 'Alt', 'Meta'].includes(event.key)) return '';
  const digit = /^(?:Digit|Numpad)(\d)$/.exec(event.code);
  const key =
    digit?.[1] ?? NAMED[event.key] ?? (event.key.length === 1 ? event.key.toUpperCase() : event.key);
  const typedByShift = key.length === 1 && !/[A-Z0-9←→↑↓]/.test(key);
  const parts = [
    event.ctrlKey || event.metaKey ? 'Ctrl' : '',
    event.altKey ? 'Alt' : '',
    event.shiftKey && !typedByShift ? 'Shift' : '',
    key,
  ];
  return parts.filter(Boolean).join('+');
}
