import type { WritableSignal } from '@angular/core';
import { switching, type Command } from '../commands/command';
import type { Folding } from './folding';

/** What commands do with the Drivetrain. */
interface Drivetrain {
  readonly zoom: () => number;
  readonly asTree: WritableSignal<boolean>;
  readonly folding: Pick<Folding, 'possible' | 'folded' | 'all'>;
  setZoom(zoom: number): void;
  fit(): void;
  toBench(): void;
}

/** Commands of the Drivetrain, there while it is open. */
export function drivetrainCommands(page: Drivetrain): readonly Command[] {
  const inLanes = () => !page.asTree();
  return [
    {
      id: 'drivetrain.closer',
      label: 'Drivetrain larger',
      group: 'View',
      when: inLanes,
      run: () => page.setZoom(page.zoom() * 1.25),
    },
    {
      id: 'drivetrain.farther',
      label: 'Drivetrain smaller',
      group: 'View',
      when: inLanes,
      run: () => page.setZoom(page.zoom() / 1.25),
    },
    {
      id: 'drivetrain.fit',
      label: 'The whole network of the Drivetrain',
      group: 'View',
      when: inLanes,
      run: () => page.fit(),
    },
    switching(
      {
        id: 'drivetrain.fold',
        label: 'Drivetrain folded: a part with all that rides on it as one piece',
        group: 'View',
        when: () => inLanes() && page.folding.possible(),
      },
      () => page.folding.folded().size > 0,
      (on) => page.folding.all(on),
    ),
    switching(
      {
        id: 'drivetrain.tree',
        label: 'Drivetrain as a tree: parts, their pieces, and what leads to each',
        group: 'View',
      },
      page.asTree,
      (on) => page.asTree.set(on),
    ),
    {
      id: 'drivetrain.bench',
      label: 'What is chosen in the Drivetrain on the Bench, with the sheet Links open',
      group: 'Project',
      run: () => page.toBench(),
    },
  ];
}
