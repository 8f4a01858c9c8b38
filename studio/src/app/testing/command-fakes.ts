import type { Provider, Type } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import type { Project } from '@kaizen/core';
import type { Command } from '../commands/command';
import { CommandRegistry } from '../commands/registry';
import { Settings } from '../ui/settings';
import { fakes } from './fake-studio';

interface CommandGroup {
  list(): readonly Command[];
}

/** The fakes with some groups of commands registered, as the Bench has them. */
export function commandFakes(
  project: Project,
  groups: readonly Type<CommandGroup>[],
  providers: readonly Provider[] = [],
) {
  const settings = { setting: () => Promise.resolve(undefined), putSetting: () => Promise.resolve() };
  const made = fakes(project, [
    { provide: Settings, useValue: settings },
    { provide: MatDialog, useValue: { openDialogs: [], open: () => undefined } },
    ...providers,
  ]);
  const registry = made.injector.get(CommandRegistry);
  registry.add(groups.flatMap((group) => made.injector.get(group).list()));
  const usable = (id: string, item?: unknown) => registry.applies(id, item);
  const isOn = (id: string, item?: unknown) => registry.find(id)!.on!(item);
  return { ...made, registry, usable, isOn };
}
