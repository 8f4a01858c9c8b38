import {
  csvLines,
  frameList,
  pointLines,
  worldLines,
  type Program,
  type Project,
  type Vec3,
} from '@kaizen/core';
import { frameSpan, parseArguments, refuseOptions, textOption, UsageError } from '../arguments';
import { compileOrFail, nameOf, readOrFail } from '../files';
import type { Command } from '../command';

export const sample: Command = {
  usage:
    "sample FILE [--frames A:B[:STEP]] [--clip ID] [--channels a,b] [--rates] | sample FILE --world | sample FILE --points 'skip:0,0.5,0;…'",
  about: [
    'Prints values as CSV, a line a frame; --world prints world matrices, a JSON line a frame.',
    "--points 'PART:x,y,z;…' prints the world places of points given in a part’s own space, before it is deformed.",
    '--frames A:B[:STEP]  frames A to B, default the range; --channels a,b  these channels, default all that move',
    '--clip ID  this clip alone, drivers on; --rates  velocity, acceleration and jerk per second after each value',
    'FILE - is standard input.',
  ],
  run: async (argv, io) => {
    const args = parseArguments(argv, ['frames', 'channels', 'clip', 'points'], ['rates', 'world']);
    const [file] = args.positional;
    if (file === undefined || args.positional.length > 1) throw new UsageError('sample takes one file');
    const world = args.options.has('world');
    if (world) refuseOptions(args, ['channels', 'rates'], 'says nothing of matrices, which --world gives');
    const points = textOption(args, 'points');
    if (points !== undefined)
      refuseOptions(args, ['channels', 'rates', 'world'], 'says nothing of places, which --points gives');
    const span = textOption(args, 'frames');
    const asked = span === undefined ? undefined : frameSpan(span);
    const clip = textOption(args, 'clip');
    const { project } = await readOrFail(file, io);
    const program = compileOrFail(file, project, clip === undefined ? {} : { clip });
    const { start, end, step } = asked ?? { ...project.range, step: 1 };
    const frames = frameList(start, end, step);
    const lines =
      points !== undefined
        ? pointLines(program, frames, readPoints(file, program, points))
        : world
          ? worldLines(program, frames)
          : csvLines(program, {
              frames,
              channels: pickChannels(file, program, textOption(args, 'channels'), project),
              rates: args.options.has('rates'),
            });
    for (const line of lines) io.out(line);
    return 0;
  },
};

/** `PART:x,y,z` and more of it after semicolons. */
function readPoints(
  file: string,
  program: Program,
  text: string,
): readonly { readonly part: number; readonly at: Vec3 }[] {
  return text.split(';').map((each) => {
    const colon = each.lastIndexOf(':');
    const id = each.slice(0, colon).trim();
    const at = each.slice(colon + 1).split(',');
    const numbers = at.map(Number);
    if (
      colon < 0 ||
      numbers.length !== 3 ||
      at.some((part) => part.trim() === '') ||
      !numbers.every(Number.isFinite)
    )
      throw new UsageError(`--points has "${each}"; a point must be PART:x,y,z`);
    const part = program.structure.partIndex.get(id);
    if (part === undefined)
      throw new UsageError(
        `${nameOf(file)} has no part "${id}"; it has ${program.structure.parts
          .map((each) => each.id)
          .slice(0, 20)
          .join(', ')}`,
      );
    return { part, at: [numbers[0]!, numbers[1]!, numbers[2]!] };
  });
}

function pickChannels(
  file: string,
  program: Program,
  asked: string | undefined,
  project: Project,
): readonly string[] {
  if (asked === undefined) return program.moving;
  const names = asked.split(',').map((name) => name.trim());
  for (const name of names) {
    if (!program.structure.slots.has(name)) {
      throw new UsageError(
        `${nameOf(file)} has no channel "${name}"; channels are <part id>/<property>, parts are ${project.parts
          .map((part) => part.id)
          .slice(0, 20)
          .join(', ')}`,
      );
    }
  }
  return names;
}
