import { compile, readDocument, type Program, type Project } from '../src';

/** A frozen project for tests: one part "wagon" with a custom channel, and curves and drivers as given. */
export function testProject(
  fields: Readonly<Record<string, unknown>> = {},
  curves: readonly unknown[] = [],
): Project {
  const read = readDocument({
    format: 'kaizen',
    version: 1,
    id: 'test',
    name: 'Test',
    rate: { frames: 24, per: 1 },
    range: { start: 0, end: 100 },
    parts: [{ id: 'wagon', name: 'Wagon', kind: 'group', custom: [{ name: 'throttle', value: 0.5 }] }],
    clips: [{ id: 'main', name: 'Main', curves }],
    activeClip: 'main',
    ...fields,
  });
  if (!read.ok)
    throw new Error(read.problems.map(({ pointer, message }) => `${pointer}: ${message}`).join('\n'));
  return deepFreeze(read.value);
}

export function deepFreeze<T>(value: T): T {
  if (typeof value === 'object' && value !== null && !Object.isFrozen(value)) {
    Object.freeze(value);
    Object.values(value).forEach(deepFreeze);
  }
  return value;
}

/** A channel's value at a frame, the project compiled anew. */
export function valueAt(project: Project, channel: string, frame: number): number {
  const program = programOf(project);
  return program.channelValue(slotOf(program, channel), frame);
}

export function programOf(project: Project): Program {
  const compiled = compile(project);
  if (!compiled.ok) throw new Error(JSON.stringify(compiled.problems));
  return compiled.value;
}

export function slotOf(program: Program, channel: string): number {
  const slot = program.structure.slots.get(channel);
  if (slot === undefined) throw new Error(`no ${channel}`);
  return slot;
}
