import { Injectable, inject } from '@angular/core';
import type { KeyRef } from '@kaizen/core';
import { onItem, type Command } from '../../commands/command';
import type { Shaping } from '../../state/bench';
import { Studio } from '../../state/studio';
import { KeyTableExchange } from './key-table-exchange';
import { ShapeSheets } from './shape-sheets';
import { ShapeTools } from './shape-tools';

/** Commands that shape curves: sides, handles, legs, loops, what is drawn beside them. */
@Injectable({ providedIn: 'root' })
export class ShapeCommands {
  private readonly studio = inject(Studio);
  private readonly tools = inject(ShapeTools);
  private readonly table = inject(KeyTableExchange);
  private readonly sheets = inject(ShapeSheets);
  private readonly editable = () => !this.studio.readOnly();
  private readonly hasKeys = () => this.editable() && this.studio.bench().keys.length > 0;
  private readonly hasChannels = () => this.editable() && this.tools.channels().length > 0;

  list(): readonly Command[] {
    return [...this.shapes(), ...this.choosing(), ...this.looks()];
  }

  private shapes(): Command[] {
    const { tools } = this;
    const pin = (id: string, label: string, end: 'before' | 'after') =>
      onItem<KeyRef>({
        id,
        label,
        group: 'Shape',
        meant: () => this.studio.bench().keys[0] ?? null,
        when: (key) => this.editable() && tools.canPin(key),
        run: (key) => tools.pin(key, end),
      });
    return [
      command(
        'shape.between',
        'Keep curves between their keys',
        this.editable,
        () => tools.keepBetween(),
        'U',
      ),
      command('shape.point', 'Let the chosen keys come to a point', this.hasKeys, () => tools.toPoint(), 'I'),
      command('shape.longer', 'Longer handles', this.hasKeys, () => tools.lengthen(1.2), '>'),
      command('shape.shorter', 'Shorter handles', this.hasKeys, () => tools.lengthen(1 / 1.2), '<'),
      command(
        'shape.convert',
        'Convert the legs to Curve',
        this.hasKeys,
        (tolerance) => tools.convert(typeof tolerance === 'number' ? tolerance : undefined),
        'Ctrl+E',
      ),
      command('shape.even', 'Make the loop even', this.hasChannels, () => tools.makeEven(), 'E'),
      pin('shape.pin', 'Pin the loop here: repeat from this key', 'after'),
      pin('shape.pin-before', 'Pin the loop here: repeat up to this key', 'before'),
      command(
        'table.copy',
        'Copy the chosen keys as a table',
        () => this.studio.bench().keys.length > 0,
        () => void this.table.copy(),
      ),
      command('table.paste', 'Paste a table of keys…', this.editable, () => this.sheets.pasteTable()),
    ];
  }

  private choosing(): Command[] {
    const { tools } = this;
    const always = () => true;
    const hasKeys = () => this.studio.bench().keys.length > 0;
    return [
      command('select.contacts', 'Choose the contacts', always, () => tools.choose('contacts')),
      command('select.tops', 'Choose the tops', always, () => tools.choose('tops')),
      command('handles.leaving', 'Choose the handles that leave the chosen keys', hasKeys, () =>
        tools.chooseHandles('out'),
      ),
      command('handles.arriving', 'Choose the handles that arrive at the chosen keys', hasKeys, () =>
        tools.chooseHandles('in'),
      ),
      command('handles.both', 'Choose both handles of the chosen keys', hasKeys, () =>
        tools.chooseHandles('both'),
      ),
    ];
  }

  private looks(): Command[] {
    const look = (id: string, label: string, name: keyof Shaping, shortcut?: string): Command => ({
      ...command(
        id,
        label,
        () => true,
        () => this.toggle(name),
        shortcut,
      ),
      on: () => {
        const value = this.studio.bench().shaping[name];
        return value === true || value === 'places';
      },
    });
    return [
      look('chart.jerk', 'Draw jerk too, or not', 'jerk'),
      look('chart.area-lock', 'Reshaping speed: places stay, or move', 'lock'),
      look('chart.value-lock', 'Lock or free the scales of value', 'valueLock'),
      look('chart.pictures', 'Pictures of legs', 'pictures', 'Ctrl+L'),
      look('chart.box', 'Scale box around the chosen keys', 'box', 'Ctrl+B'),
      look('chart.together', 'Lengths of both handles together', 'together'),
      look('chart.takes', 'Draw second takes', 'takes'),
      look('chart.untreated', 'Draw curves before their treatments', 'untreated'),
      look('chart.lanes', 'Treatments as lanes under the plot', 'lanes'),
      look('chart.path', 'Metres against metres, 1:1', 'path'),
    ];
  }

  toggle(name: keyof Shaping): void {
    const { shaping } = this.studio.bench();
    const change =
      name === 'lock'
        ? { lock: shaping.lock === 'places' ? ('free' as const) : ('places' as const) }
        : { [name]: !shaping[name] };
    this.studio.set({ shaping: { ...shaping, ...change } });
  }
}

function command(
  id: string,
  label: string,
  when: () => boolean,
  run: Command['run'],
  shortcut?: string,
): Command {
  const group =
    id.startsWith('select') || id.startsWith('handles')
      ? 'Select'
      : id.startsWith('chart')
        ? 'Chart'
        : 'Shape';
  return { id, label, group, when, run, ...(shortcut === undefined ? {} : { shortcuts: [shortcut] }) };
}
