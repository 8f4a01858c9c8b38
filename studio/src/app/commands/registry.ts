import { computed, Injectable, inject, signal } from '@angular/core';
import { MatDialog, MatDialogState } from '@angular/material/dialog';
import { Settings } from '../ui/settings';
import type { Command } from './command';
import { isAboutText } from '../ui/own-keys';
import { shortcutOfEvent } from './shortcut';

type Changed = Readonly<Record<string, readonly string[]>>;

/** All commands there are now, their shortcuts (the user's over the defaults), and the keys that run them. */
@Injectable({ providedIn: 'root' })
export class CommandRegistry {
  private readonly settings = inject(Settings);
  private readonly dialogs = inject(MatDialog);
  private readonly groups = signal<readonly (readonly Command[])[]>([]);
  private readonly changed = signal<Changed>({});
  private space: 'up' | 'held' | 'used' = 'up';
  readonly commands = computed(() => this.groups().flat());
  private readonly byId = computed(() => new Map(this.commands().map((command) => [command.id, command])));
  private readonly byShortcut = computed(() => {
    const map = new Map<string, Command[]>();
    for (const command of this.commands())
      for (const shortcut of this.shortcutsOf(command))
        map.set(shortcut, [...(map.get(shortcut) ?? []), command]);
    return map;
  });

  constructor() {
    void this.settings.setting<Changed>('shortcuts').then((changed) => this.changed.set(changed ?? {}));
  }

  /** Adds commands until the returned function is called. */
  add(commands: readonly Command[]): () => void {
    this.groups.update((groups) => [...groups, commands]);
    return () => this.groups.update((groups) => groups.filter((group) => group !== commands));
  }

  shortcutsOf(command: Command): readonly string[] {
    return this.changed()[command.id] ?? command.shortcuts ?? [];
  }

  isChanged(command: Command): boolean {
    return command.id in this.changed();
  }

  /** Gives a command another shortcut; whatever had it before loses it. */
  setShortcut(command: Command, shortcut: string): void {
    const changes: Record<string, readonly string[]> = { ...this.changed(), [command.id]: [shortcut] };
    for (const other of this.commands()) {
      if (other.id === command.id || !this.shortcutsOf(other).includes(shortcut)) continue;
      changes[other.id] = this.shortcutsOf(other).filter((had) => had !== shortcut);
    }
    this.keep(changes);
  }

  resetShortcuts(): void {
    this.keep({});
  }

  private keep(changed: Changed): void {
    this.changed.set(changed);
    void this.settings.putSetting('shortcuts', changed);
  }

  find(id: string): Command | undefined {
    return this.byId().get(id);
  }

  /** A tooltip's text: what it does, and its shortcut. */
  tip(id: string, text?: string): string {
    const command = this.find(id);
    const shortcut = command && this.shortcutsOf(command)[0];
    return [text ?? command?.label ?? '', shortcut ? `(${shortcut})` : ''].filter(Boolean).join(' ');
  }

  /** Whether there is such a command, and it applies now; `item` is what it is about, where a button says so. */
  applies(id: string, item?: unknown): boolean {
    const command = this.find(id);
    return command ? (command.when?.(item) ?? true) : false;
  }

  /** Runs a command, if it applies. */
  run(id: string, item?: unknown): void {
    if (this.applies(id, item)) this.find(id)?.run(item);
  }

  /** Runs what a key press means, unless it belongs to whatever has the focus; tells whether it ran something. */
  handle(event: KeyboardEvent): boolean {
    if (event.defaultPrevented || this.dialogIsOpen || isOwnKey(event)) return false;
    const shortcut = shortcutOfEvent(event);
    const command = this.meantBy(shortcut);
    if (!command) return false;
    event.preventDefault();
    if (shortcut === 'Space') this.space = this.space === 'up' ? 'held' : this.space;
    else command.run();
    return shortcut !== 'Space';
  }

  /** One that was closed is still seen to go; keys are the page's again by then. */
  private get dialogIsOpen(): boolean {
    return this.dialogs.openDialogs.some((dialog) => dialog.getState() === MatDialogState.OPEN);
  }

  /** The command that a shortcut means now: commands that never apply together may share one. */
  private meantBy(shortcut: string): Command | undefined {
    return this.byShortcut()
      .get(shortcut)
      ?.findLast((command) => command.when?.() ?? true);
  }

  /** Space runs its command when it comes up, unless it was held for a drag. */
  release(event: KeyboardEvent): void {
    if (event.key !== ' ' || this.space === 'up') return;
    const command = this.space === 'held' ? this.meantBy('Space') : undefined;
    this.space = 'up';
    command?.run();
  }

  /** Whether Space is held down, so that a drag pans. */
  spaceHeld(): boolean {
    return this.space !== 'up';
  }

  /** Tells that Space was held for a drag. */
  useSpace(): void {
    if (this.space === 'held') this.space = 'used';
  }
}

function isOwnKey(event: KeyboardEvent): boolean {
  const target = event.target instanceof Element ? event.target : null;
  if (!target) return false;
  const field = target.closest(
    'input:not([type=checkbox]), textarea, select, [contenteditable], [role=menu]',
  );
  const withCtrl = event.ctrlKey || event.metaKey;
  if (field)
    return !withCtrl || (field.matches('input, textarea, [contenteditable]') && isAboutText(event, field));
  const plain = !event.ctrlKey && !event.metaKey && !event.altKey;
  if (plain && (event.key === ' ' || event.key === 'Enter') && target.closest('button, a, [role=button]'))
    return true;
  return (
    plain && event.key.startsWith('Arrow') && target.closest('[role=radiogroup], [role=separator]') !== null
  );
}
