import '@angular/compiler';
import { jest } from '@jest/globals';
import fc from 'fast-check';
import { activeClip, readProject, writeProject, type Project } from '@kaizen/core';
import { Opener } from '../open/opener';
import type { Picked } from '../state/bench';
import { benchFromRecord, benchRecord } from '../state/bench-record';
import { chartProject } from '../testing/chart-project';
import { commandFakes } from '../testing/command-fakes';
import { PartPicker } from './stage/picker';
import { BenchCommands } from './bench-commands';

/** A worker that never answers: what is given to one is under way for ever. */
class BusyWorker {
  postMessage(_: unknown, given: readonly object[] = []): void {
    for (const each of given) if (each instanceof MessagePort) each.close();
  }
  addEventListener(): void {
    return;
  }
  terminate(): void {
    return;
  }
}

function setUp() {
  const made = commandFakes(
    chartProject(),
    [BenchCommands],
    [{ provide: Opener, useValue: { replaceModel: () => undefined } }],
  );
  const { registry, injector } = made;
  const usableNow = () => registry.commands().filter(({ id }) => registry.applies(id));
  return { ...made, usableNow, picker: injector.get(PartPicker) };
}

const NOTHING = { parts: [], channels: [], keys: [], handles: [] };
const WAYS = 7;

/** One of the ways in which something can be chosen in a project; `n` says what. */
function choice(project: Project, way: number, n: number): Picked {
  const { parts } = project;
  const curves = activeClip(project)?.curves ?? [];
  const [part, curve, other] = [parts[n % parts.length], curves[n % curves.length], curves[0]];
  const key = curve?.keys[n % curve.keys.length];
  if (way === 1 && part) return { ...NOTHING, parts: [part.id] };
  if (way === 2) return { ...NOTHING, parts: parts.slice(0, 3).map(({ id }) => id) };
  if (!curve || !other || !key) return NOTHING;
  const { channel } = curve;
  if (way === 3) return { ...NOTHING, channels: [channel] };
  const picked = { channel, frame: key.frame };
  if (way === 4) return { ...NOTHING, channels: [channel], keys: [picked] };
  if (way === 5) return { ...NOTHING, channels: [channel], handles: [{ ...picked, side: 'out' }] };
  const ofOther = other.keys.slice(0, 2).map(({ frame }) => ({ channel: other.channel, frame }));
  return way === 6 ? { ...NOTHING, keys: [...ofOther, ...(other === curve ? [] : [picked])] } : NOTHING;
}

describe('the commands of the Bench', () => {
  beforeEach(() => {
    jest.useFakeTimers();
    Object.assign(globalThis, { Worker: BusyWorker });
  });
  afterEach(() => jest.useRealTimers());

  it('have each an id and words of their own', () => {
    const commands = setUp().registry.commands();
    for (const name of ['id', 'label'] as const) {
      const all = commands.map((command) => command[name]);
      expect(all.filter((each, i) => all.indexOf(each) !== i)).toEqual([]);
    }
    expect(commands.length).toBeGreaterThan(300);
  });

  it('share a shortcut only where they never apply together', () => {
    for (let way = 0; way < WAYS; way++) {
      const { studio, usableNow } = setUp();
      studio.pick(choice(studio.project()!, way, 1));
      const shortcuts = usableNow().flatMap((command) => command.shortcuts ?? []);
      expect(shortcuts.filter((each, i) => shortcuts.indexOf(each) !== i)).toEqual([]);
    }
  });

  it('that would edit do not apply to a project that is only followed', () => {
    for (let way = 0; way < WAYS; way++) {
      const { studio, registry, usableNow } = setUp();
      studio.pick(choice(studio.project()!, way, 1));
      studio.readOnly.set(true);
      for (const { id } of usableNow()) registry.run(id);
      expect(studio.refused).toEqual([]);
    }
  });

  it('leave, in any order, a project that a file can hold, and a state that a record can', () => {
    const step = fc.record({
      command: fc.nat(),
      way: fc.option(fc.nat(WAYS - 1)),
      n: fc.nat(20),
      frame: fc.integer({ min: -10, max: 60 }),
      answers: fc.boolean(),
    });
    fc.assert(
      fc.property(fc.array(step, { maxLength: 25 }), (steps) => {
        const { studio, stage, registry, usableNow, picker } = setUp();
        for (const { command, way, n, frame, answers } of steps) {
          stage.frame.set(frame);
          if (way !== null) studio.pick(choice(studio.project()!, way, n));
          const usable = usableNow();
          registry.run(usable[command % usable.length]!.id);
          const { parts } = studio.project()!;
          if (answers && parts.length > 0) picker.answer(parts[n % parts.length]!.id, [frame / 10, 1, 2]);
        }
        const project = studio.project()!;
        const text = writeProject(project);
        const read = readProject(text);
        expect(read).toMatchObject({ ok: true });
        if (read.ok) expect(writeProject(read.value)).toBe(text);
        expect(stage.now()).not.toBeNull();
        const bench = studio.bench();
        const kept = benchRecord(bench, null);
        const again = benchRecord(benchFromRecord(JSON.parse(JSON.stringify(kept)), project), null);
        expect(again).toEqual(kept);
      }),
      { numRuns: 300 },
    );
  });
});
