import { shortcutOfEvent } from './shortcut';

const press = (key: string, code: string, ...mods: string[]) =>
  shortcutOfEvent({
    key,
    code,
    ctrlKey: mods.includes('ctrl'),
    metaKey: mods.includes('meta'),
    shiftKey: mods.includes('shift'),
    altKey: mods.includes('alt'),
  });

describe('a key press', () => {
  it.each([
    [press('z', 'KeyZ', 'ctrl'), 'Ctrl+Z'],
    [press('Z', 'KeyZ', 'meta', 'shift'), 'Ctrl+Shift+Z'],
    [press(')', 'Digit0', 'shift'), 'Shift+0'],
    [press('?', 'Slash', 'shift'), '?'],
    [press(' ', 'Space'), 'Space'],
    [press('ArrowLeft', 'ArrowLeft', 'shift'), 'Shift+←'],
    [press('1', 'Numpad1'), '1'],
    [press('Shift', 'ShiftLeft', 'shift'), ''],
    [press('Escape', 'Escape'), 'Esc'],
  ])('%s', (actual, expected) => expect(actual).toBe(expected));
});
