import { signal } from '@angular/core';
import { drivetrainCommands } from './drivetrain-commands';

function setUp(possible = true) {
  const zoom = signal(1);
  const done: string[] = [];
  const folded = signal<ReadonlySet<string>>(new Set());
  const asTree = signal(false);
  const commands = drivetrainCommands({
    zoom,
    asTree,
    folding: {
      possible: signal(possible),
      folded,
      all: (fold) => folded.set(new Set(fold ? ['wheel'] : [])),
    },
    setZoom: (to) => zoom.set(to),
    fit: () => void done.push('fit'),
    toBench: () => void done.push('bench'),
  });
  const find = (id: string) => commands.find((command) => command.id === `drivetrain.${id}`)!;
  return { zoom, done, folded, asTree, find };
}

describe('commands of the Drivetrain', () => {
  it('draw it larger and smaller by the same step, and fit it', () => {
    const { zoom, done, find } = setUp();
    find('closer').run();
    expect(zoom()).toBe(1.25);
    find('farther').run();
    expect(zoom()).toBe(1);
    find('fit').run();
    expect(done).toEqual(['fit']);
  });

  it('fold all and open all, where something can be folded', () => {
    const { folded, find } = setUp();
    expect(find('fold').on!()).toBe(false);
    find('fold').run();
    expect([...folded()]).toEqual(['wheel']);
    expect(find('fold').on!()).toBe(true);
    find('fold').run();
    expect(folded().size).toBe(0);
    expect(setUp(false).find('fold').when!()).toBe(false);
  });

  it('as a tree leave out what only the drawing has', () => {
    const { asTree, find } = setUp();
    find('tree').run();
    expect(asTree()).toBe(true);
    expect(['closer', 'farther', 'fit', 'fold'].map((id) => find(id).when!())).toEqual(Array(4).fill(false));
    expect(find('tree').on!()).toBe(true);
  });
});
