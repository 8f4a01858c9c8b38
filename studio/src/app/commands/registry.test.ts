import '@angular/compiler';
import { Injector, runInInjectionContext } from '@angular/core';
import { MatDialog, MatDialogState } from '@angular/material/dialog';
import { Settings } from '../ui/settings';
import { onItem } from './command';
import { offerCommands } from './offer-commands';
import { CommandRegistry } from './registry';

class FakeElement {
  constructor(private readonly name: string) {}
  closest(selectors: string): FakeElement | null {
    return selectors.split(',').some((selector) => selector.trim().startsWith(this.name)) ? this : null;
  }
}

Object.assign(globalThis, { Element: FakeElement });

function setUp(kept: Record<string, readonly string[]> = {}) {
  const settings: Record<string, unknown> = { shortcuts: kept };
  const keeper = {
    setting: (name: string) => Promise.resolve(settings[name]),
    putSetting: (name: string, value: unknown) => Promise.resolve(void (settings[name] = value)),
  };
  const openDialogs: { readonly getState: () => MatDialogState }[] = [];
  const injector = Injector.create({
    providers: [
      { provide: Settings, useValue: keeper },
      { provide: MatDialog, useValue: { openDialogs } },
      { provide: CommandRegistry, useClass: CommandRegistry },
    ],
  });
  const registry = injector.get(CommandRegistry);
  const ran: string[] = [];
  const command = (id: string, shortcut: string, when = () => true) => ({
    id,
    label: id,
    group: 'Play' as const,
    shortcuts: [shortcut],
    when,
    run: () => void ran.push(id),
  });
  const handled: boolean[] = [];
  const press = (key: string, more: object = {}) => {
    const event = {
      key,
      code: '',
      ctrlKey: false,
      metaKey: false,
      shiftKey: false,
      altKey: false,
      defaultPrevented: false,
      target: null,
      preventDefault: () => undefined,
      ...more,
    };
    handled.push(registry.handle(event as unknown as KeyboardEvent));
    return event as unknown as KeyboardEvent;
  };
  return { registry, settings, ran, handled, command, press, injector, openDialogs };
}

describe('commands', () => {
  it('run by their shortcuts, while they are there and apply', () => {
    const { registry, ran, handled, command, press } = setUp();
    const remove = registry.add([command('step', '→'), command('never', 'N', () => false)]);
    press('ArrowRight');
    press('n');
    expect(ran).toEqual(['step']);
    remove();
    press('ArrowRight');
    expect(ran).toEqual(['step']);
    expect(handled).toEqual([true, false, false]);
  });

  it('leave keys to fields, to pressed buttons and to an open dialog, until that is closed', () => {
    const { registry, ran, command, press, openDialogs } = setUp();
    registry.add([command('here', 'D'), command('play', 'Space')]);
    press('d', { target: new FakeElement('input') });
    press(' ', { target: new FakeElement('button') });
    let state = MatDialogState.OPEN;
    openDialogs.push({ getState: () => state });
    press('d');
    expect(ran).toEqual([]);
    state = MatDialogState.CLOSING;
    press('d', { target: new FakeElement('canvas') });
    expect(ran).toEqual(['here']);
  });

  it('Space runs when it comes up, unless it was held for a drag', () => {
    const { registry, ran, command, press } = setUp();
    registry.add([command('play', 'Space')]);
    const down = press(' ');
    expect(registry.spaceHeld()).toBe(true);
    registry.release(down);
    press(' ');
    registry.useSpace();
    registry.release(down);
    expect(ran).toEqual(['play']);
    expect(registry.spaceHeld()).toBe(false);
  });

  it('take another shortcut, and whatever had it loses it; that is remembered and can be reset', () => {
    const { registry, settings, ran, command, press } = setUp();
    const [one, two] = [command('one', 'A'), command('two', 'B')];
    registry.add([one, two]);
    registry.setShortcut(one, 'B');
    press('b');
    press('a');
    expect(ran).toEqual(['one']);
    expect(registry.shortcutsOf(two)).toEqual([]);
    expect(registry.isChanged(one)).toBe(true);
    expect(registry.tip('one')).toBe('one (B)');
    expect(settings['shortcuts']).toEqual({ one: ['B'], two: [] });
    registry.resetShortcuts();
    press('b');
    expect(ran).toEqual(['one', 'two']);
  });

  it('come with the shortcuts of the last visit', async () => {
    const { registry, ran, command, press } = setUp({ one: ['Q'] });
    registry.add([command('one', 'A')]);
    await Promise.resolve();
    press('q');
    registry.run('one');
    expect(ran).toEqual(['one', 'one']);
  });

  it('that never apply together may share a shortcut', () => {
    const { registry, ran, command, press } = setUp();
    let posing = true;
    registry.add([command('pose', 'X', () => posing), command('trim', 'X', () => !posing)]);
    press('x');
    posing = false;
    press('x');
    expect(ran).toEqual(['pose', 'trim']);
  });

  it('do to a button’s own thing of a list what keys do to the one that is meant', () => {
    const { registry, press } = setUp();
    const muted: string[] = [];
    let meant: string | null = 'b';
    registry.add([
      onItem<string>({
        id: 'lane.mute',
        label: 'Mute',
        group: 'Shape',
        shortcuts: ['M'],
        meant: () => meant,
        when: (name) => name !== 'locked',
        on: (name) => muted.includes(name),
        run: (name) => void muted.push(name),
      }),
    ]);
    registry.run('lane.mute', 'a');
    press('m');
    registry.run('lane.mute', 'locked');
    meant = null;
    press('m');
    registry.run('lane.mute');
    expect(muted).toEqual(['a', 'b']);
    const command = registry.find('lane.mute')!;
    expect([command.when!('a'), command.when!('locked'), command.when!()]).toEqual([true, false, false]);
    expect([command.on!('a'), command.on!('c'), command.on!()]).toEqual([true, false, false]);
  });

  it('of a form are there as long as the form', () => {
    const { registry, ran, command, press, injector } = setUp();
    runInInjectionContext(injector, () => offerCommands([command('make', 'M')]));
    press('m');
    injector.destroy();
    press('m');
    expect(ran).toEqual(['make']);
    expect(registry.commands()).toEqual([]);
  });
});
