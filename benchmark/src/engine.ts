import {
  compile,
  newPart,
  newProject,
  type Driver,
  type ExpressionDriver,
  type Part,
  type Program,
  type Project,
} from '@kaizen/core';
import { keyedProject } from './keyed-project';
import { measure, type Result } from './measure';

const LAST = 1000;

function programOf(project: Project): Program {
  const compiled = compile(project);
  if (!compiled.ok) throw new Error(JSON.stringify(compiled.problems));
  return compiled.value;
}

function clock(): () => number {
  let frame = 0;
  return () => (frame = (frame + 1) % LAST);
}

function ratio(what: string, own: number, other: number, most: number): Result {
  const times = own / other;
  return {
    what,
    measured: `${times.toFixed(2)} times as slow`,
    wanted: `at most ${most}`,
    good: times <= most,
  };
}

const TURNS = ['translate.x', 'translate.y', 'translate.z', 'rotate.x', 'rotate.y', 'rotate.z'];
const DEPTH = 10;

/** Parts that turn on three axes, in chains ten deep. */
function turningChains(): Project {
  const project = keyedProject(1000, TURNS, LAST, (random) =>
    Array.from({ length: 40 }, (_, i) => (i + 0.1 + 0.8 * random()) * (LAST / 40)),
  );
  const parts = project.parts.map((part, i): Part => ({
    ...part,
    parent: i % DEPTH === 0 ? null : project.parts[i - 1]!.id,
  }));
  return { ...project, parts };
}

/** The same curves, sines, cosines and products as bare loops over flat arrays. */
function bareTurning(project: Project): (frame: number) => void {
  const { curves } = project.clips[0]!;
  const keys = curves[0]!.keys.length;
  const times = new Float64Array(curves.length * keys);
  const values = new Float64Array(curves.length * keys);
  const slopes = new Float64Array(curves.length * keys);
  curves.forEach((curve, c) => {
    curve.keys.forEach((key, i) => {
      times[c * keys + i] = key.frame;
      values[c * keys + i] = key.value;
      const [a, b] = [curve.keys[i - 1], curve.keys[i + 1]];
      slopes[c * keys + i] = a && b ? (b.value - a.value) / (b.frame - a.frame) : 0;
    });
  });
  const channels = new Float64Array(curves.length);
  const world = new Float64Array(project.parts.length * 16);
  const local = new Float64Array(16);
  return (frame) => {
    for (let c = 0; c < curves.length; c++) {
      let low = c * keys;
      let high = low + keys - 1;
      while (high - low > 1) {
        const middle = (low + high) >> 1;
        if (times[middle]! <= frame) low = middle;
        else high = middle;
      }
      const h = times[high]! - times[low]!;
      const t = Math.min(1, Math.max(0, (frame - times[low]!) / h));
      const u = 1 - t;
      channels[c] =
        values[low]! * (1 + 2 * t) * u * u +
        slopes[low]! * h * t * u * u +
        values[high]! * t * t * (3 - 2 * t) -
        slopes[high]! * h * t * t * u;
    }
    for (let p = 0; p < project.parts.length; p++) {
      const at = p * 6;
      const radians = Math.PI / 180;
      const [cx, sx] = [Math.cos(channels[at + 3]! * radians), Math.sin(channels[at + 3]! * radians)];
      const [cy, sy] = [Math.cos(channels[at + 4]! * radians), Math.sin(channels[at + 4]! * radians)];
      const [cz, sz] = [Math.cos(channels[at + 5]! * radians), Math.sin(channels[at + 5]! * radians)];
      local[0] = cy * cz;
      local[1] = cx * sz + sx * sy * cz;
      local[2] = sx * sz - cx * sy * cz;
      local[4] = -cy * sz;
      local[5] = cx * cz - sx * sy * sz;
      local[6] = sx * cz + cx * sy * sz;
      local[8] = sy;
      local[9] = -sx * cy;
      local[10] = cx * cy;
      local[12] = channels[at]!;
      local[13] = channels[at + 1]!;
      local[14] = channels[at + 2]!;
      local[15] = 1;
      const out = p * 16;
      if (p % DEPTH === 0) {
        for (let i = 0; i < 16; i++) world[out + i] = local[i]!;
        continue;
      }
      const up = out - 16;
      for (let column = 0; column < 4; column++) {
        const [b0, b1, b2] = [local[column * 4]!, local[column * 4 + 1]!, local[column * 4 + 2]!];
        const b3 = column === 3 ? 1 : 0;
        for (let row = 0; row < 3; row++)
          world[out + column * 4 + row] =
            world[up + row]! * b0 +
            world[up + 4 + row]! * b1 +
            world[up + 8 + row]! * b2 +
            world[up + 12 + row]! * b3;
        world[out + column * 4 + 3] = b3;
      }
    }
  };
}

function turning(): Result {
  const project = turningChains();
  const program = programOf(project);
  const out = program.createOutput();
  const bare = bareTurning(project);
  const [a, b] = [clock(), clock()];
  const [own, other] = measure([
    { name: 'program.run', run: () => program.run(a(), out) },
    { name: 'bare loop', run: () => bare(b()) },
  ]) as [number, number];
  return ratio(
    `program.run, 1,000 parts that turn on three axes in chains ten deep (${own.toFixed(2)} ms), against bare loops of the same curves, trigonometry and products (${other.toFixed(2)} ms)`,
    own,
    other,
    1.5,
  );
}

/** Parts with two channels of their own, `in` keyed and `out` driven. */
function drivenParts(count: number, drivers: (i: number) => readonly Driver[]): Project {
  const project = newProject('driven', 'Driven');
  const custom = [
    { name: 'in', value: 1 },
    { name: 'out', value: 0 },
  ];
  const parts = Array.from({ length: count }, (_, i): Part => ({
    ...newPart('group', `p${i}`),
    id: `p${i}`,
    custom,
  }));
  return {
    ...project,
    range: { start: 0, end: LAST, loop: false },
    parts,
    drivers: parts.flatMap((_, i) => drivers(i)),
  };
}

const base = { combine: 'replace', muted: false } as const;

function expression(
  id: string,
  target: string,
  inputs: ExpressionDriver['inputs'],
  text: string,
): ExpressionDriver {
  return { ...base, id, target, kind: 'expression', inputs, expression: text };
}

function expressions(): Result {
  const count = 2000;
  const project = drivenParts(count, (i) => [
    expression(
      `d${i}`,
      `p${i}/custom.out`,
      { x: `p${i}/custom.in` },
      `-(x + ${i}) / (2 * pi * 0.35) * 360 + sin(frame * ${(i % 7) + 1}) * max(x, ${i % 3}) - clamp(x * 0.5, 0, 1)`,
    ),
  ]);
  const bareProject = drivenParts(count, () => []);
  const program = programOf(project);
  const without = programOf(bareProject);
  const out = program.createOutput();
  const outWithout = without.createOutput();
  const inputs = new Float64Array(count).fill(1);
  const outputs = new Float64Array(count);
  const plain = Array.from(
    { length: count },
    (_, i) =>
      (frame: number, x: number): number =>
        (-(x + i) / (2 * Math.PI * 0.35)) * 360 +
        Math.sin(frame * ((i % 7) + 1) * (Math.PI / 180)) * Math.max(x, i % 3) -
        Math.min(1, Math.max(0, x * 0.5)),
  );
  const [a, b, c] = [clock(), clock(), clock()];
  const [own, none, other] = measure([
    { name: 'with drivers', run: () => program.run(a(), out) },
    { name: 'without', run: () => without.run(b(), outWithout) },
    {
      name: 'plain functions',
      run: () => {
        const frame = c();
        for (let i = 0; i < count; i++) outputs[i] = plain[i]!(frame, inputs[i]!);
      },
    },
  ]) as [number, number, number];
  return ratio(
    `2,000 expression drivers of five operations and three functions each (${(own - none).toFixed(3)} ms), against the same arithmetic as plain compiled functions (${other.toFixed(3)} ms)`,
    own - none,
    other,
    2,
  );
}

function ladder(): Result {
  const count = 40;
  const custom = Array.from({ length: count + 1 }, (_, i) => ({ name: `c${i}`, value: 0 }));
  const name = (i: number) => `p/custom.c${i}`;
  const of = (input: (i: number) => string): Project => {
    const project = newProject('ladder', 'Ladder');
    const part: Part = { ...newPart('group', 'p'), id: 'p', custom };
    const keyed = keyedProject(1, ['translate.x'], LAST, () => [0, 300, 600, LAST]);
    const clips = keyed.clips.map((clip) => ({
      ...clip,
      curves: clip.curves.map((curve) => ({ ...curve, channel: name(0) })),
    }));
    return {
      ...project,
      parts: [part],
      clips,
      activeClip: clips[0]!.id,
      drivers: Array.from({ length: count }, (_, i) =>
        expression(`d${i}`, name(i + 1), { a: input(i), b: input(i) }, 'a * 0.5 + b * 0.5 + sin(a)'),
      ),
    };
  };
  const laddered = programOf(of(name));
  const single = programOf(of(() => name(0)));
  const slots = Array.from({ length: count }, (_, i) => laddered.structure.slots.get(name(i + 1))!);
  const run = (program: Program) => {
    let frame = 0;
    return () => {
      frame += 0.37;
      for (const slot of slots) program.channelRates(slot, frame);
    };
  };
  const [own, other] = measure([
    { name: 'ladder', run: run(laddered) },
    { name: 'single', run: run(single) },
  ]) as [number, number];
  return ratio(
    `rates of a ladder of 40 drivers, each reading the one before twice (${own.toFixed(3)} ms), against those of 40 single ones (${other.toFixed(3)} ms)`,
    own,
    other,
    3,
  );
}

function jump(): Result {
  const count = 200;
  const project: Project = {
    ...drivenParts(count, (i) => [
      {
        ...base,
        id: `f${i}`,
        target: `p${i}/custom.out`,
        kind: 'follow',
        input: `p${i}/translate.x`,
        frequency: 1 + (i % 5) * 0.4,
        damping: 0.3 + (i % 4) * 0.2,
        start: 0,
        loop: null,
      },
    ]),
    range: { start: 0, end: 12_000, loop: false },
  };
  const keyed = keyedProject(count, ['translate.x'], 12_000, (random) =>
    Array.from({ length: 200 }, (_, i) => (i + 0.1 + 0.8 * random()) * 60),
  );
  const clips = keyed.clips.map((clip) => ({
    ...clip,
    curves: clip.curves.map((curve, i) => ({ ...curve, channel: `p${i}/translate.x` })),
  }));
  const shot: Project = { ...project, clips, activeClip: clips[0]!.id };
  // A program anew each time: nothing is remembered of frames before.
  const cold = (frame: number) => {
    const program = programOf({ ...shot, drivers: [...shot.drivers] });
    const out = program.createOutput();
    const began = performance.now();
    program.run(frame, out);
    return performance.now() - began;
  };
  for (let i = 0; i < 5; i++) [100, 10_000].map(cold);
  const times = [100, 10_000].map(() => [] as number[]);
  for (let i = 0; i < 15; i++) [100, 10_000].forEach((frame, k) => times[k]!.push(cold(frame)));
  const [near, far] = times.map((list) => list.sort((a, b) => a - b)[7]!) as [number, number];
  return ratio(
    `the first jump to frame 10,000 with 200 followers (${far.toFixed(2)} ms), against a first jump to frame 100 (${near.toFixed(2)} ms)`,
    far,
    near,
    3,
  );
}

export function engine(): Result[] {
  return [turning(), expressions(), ladder(), jump()];
}
