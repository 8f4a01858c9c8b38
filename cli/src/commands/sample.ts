import { csvLines, frameList, worldLines, type Program, type Project } from '@kaizen/core';
import { frameSpan, parseArguments, textOption, UsageError } from '../arguments';
import { compileOrFail, nameOf, readOrFail } from '../files';
import type { Command } from '../command';

export const sample: Command = {
  usage:
    'sample FILE [--frames A:B[:STEP]] [--channels a,b] [--clip ID] [--rates] | sample FILE --world [--frames A:B[:STEP]]',
  about: [
    'Prints values as CSV, a line a frame; --world prints world matrices, a JSON line a frame.',
    '--frames A:B[:STEP]  frames A to B, default the range; --channels a,b  these channels, default all that move',
    '--clip ID  this clip alone, drivers on; --rates  velocity, acceleration and jerk per second after each value',
    'FILE - is standard input.',
  ],
  run: (argv, io) => {
    const args = parseArguments(argv, ['frames', 'channels', 'clip'], ['rates', 'world']);
    const [file] = args.positional;
    if (file === undefined || args.positional.length > 1) throw new UsageError('sample takes one file');
    const world = args.options.has('world');
    if (world && (args.options.has('channels') || args.options.has('rates'))) {
      throw new UsageError('--world gives matrices; it goes with --frames and --clip only');
    }
    const span = textOption(args, 'frames');
    const asked = span === undefined ? undefined : frameSpan(span);
    const clip = textOption(args, 'clip');
    const { project } = readOrFail(file, io);
    const program = compileOrFail(file, project, clip === undefined ? {} : { clip });
    const { start, end, step } = asked ?? { ...project.range, step: 1 };
    const frames = frameList(start, end, step);
    const lines = world
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
