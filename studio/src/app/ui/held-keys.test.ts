import { HeldKeys } from './held-keys';

describe('keys held for a field that is on its way', () => {
  const { addEventListener: own } = globalThis;
  const page = new EventTarget();
  beforeEach(() => (globalThis.addEventListener = page.addEventListener.bind(page)));
  afterEach(() => (globalThis.addEventListener = own));

  /** Whether a key goes on to what is behind. */
  const press = (key: string, more: object = {}) =>
    page.dispatchEvent(Object.assign(new Event('keydown', { cancelable: true }), { key, ...more }));
  const type = (keys: string) => [...keys].map((key) => press(key));

  it('are its text, which can be mended; what Ctrl is held with goes by', () => {
    const held = new HeldKeys();
    expect(type('loopx')).toEqual([false, false, false, false, false]);
    press('Backspace');
    expect(press('k', { ctrlKey: true })).toBe(true);
    press('Enter');
    expect([held.text, held.entered, held.gaveUp]).toEqual(['loop', true, false]);
    held.release();
    expect(press('d')).toBe(true);
  });

  it('after Enter are for what it brings, in their order', () => {
    const held = new HeldKeys();
    type('fit');
    press('Enter');
    expect([...type('ab'), press('z', { ctrlKey: true })]).toEqual([false, false, false]);
    held.release();
    expect(held.text).toBe('fit');
    const pressed: string[] = [];
    const focus = {
      dispatchEvent: ({ key, ctrlKey }: KeyboardEvent) => pressed.push(ctrlKey ? `Ctrl+${key}` : key),
    };
    const made = class {
      constructor(_: string, more: object) {
        Object.assign(this, more);
      }
    };
    Object.assign(globalThis, { document: { activeElement: focus }, KeyboardEvent: made });
    held.pressLater();
    expect(pressed).toEqual(['a', 'b', 'Ctrl+z']);
  });

  it('are for the next one once the first was given up, however late that comes', () => {
    const first = new HeldKeys();
    let closed = 0;
    first.onGiveUp = () => (closed += 1);
    press('Escape');
    expect(closed).toBe(1);
    const second = new HeldKeys();
    type('new');
    expect([first.gaveUp, first.text, second.text]).toEqual([true, '', 'new']);
    second.release();
    expect(press('d')).toBe(true);
  });
});
