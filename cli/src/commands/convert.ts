import {
  changeRateKeepingSeconds,
  expressionsCountingFrames,
  extensionsThat,
  formatNamed,
  plainSentence,
  roundedFrames,
  type Format,
  type WriteSettings,
} from '@kaizen/core';
import {
  FileError,
  frameSpan,
  numberOption,
  parseArguments,
  refuseOptions,
  textOption,
  UsageError,
  type Arguments,
} from '../arguments';
import { compileOrFail, formatOf, nameOf, oneLine, readOrFail, STREAM, writeWhole } from '../files';
import type { Command } from '../command';

export const convert: Command = {
  usage: 'convert IN OUT [--fps N] [--frames A:B] [--clip ID] [--bake] [--tolerance T] [--to EXTENSION]',
  about: [
    `By extension: reads ${extensionsThat('read').join(' ')}, writes ${extensionsThat('write').join(' ')}.`,
    '--fps N  another rate, the seconds stay; --frames A:B  this part of the shot (.glb .gltf .csv)',
    '--clip ID  this clip alone (.glb .gltf .csv); --bake  plain nodes with sampled keys (.glb .gltf)',
    '--tolerance T  share of a curve’s range, default 1e-4 (.glb .gltf); --to EXTENSION  the format of OUT -',
    'IN - is standard input, OUT - standard output. What is left out or changed is told on standard error.',
  ],
  run: async (argv, io) => {
    const args = parseArguments(argv, ['fps', 'frames', 'clip', 'tolerance', 'to'], ['bake']);
    const [from, to] = args.positional;
    if (from === undefined || to === undefined || args.positional.length > 2)
      throw new UsageError('convert takes two files, IN and OUT');
    if (from !== STREAM) formatOf(from, 'read');
    const format = outFormat(to, args);
    refuseWhatDoesNotApply(args, format);
    const settings = readSettings(args);
    const tell = (sentence: string) => io.err(`${plainSentence(`${nameOf(from)}: ${sentence}`)}\n`);
    const read = await readOrFail(from, io);
    for (const sentence of read.report) tell(sentence);
    let { project } = read;
    if (settings.fps !== undefined) {
      for (const id of expressionsCountingFrames(project))
        tell(`the expression of driver "${id}" counts frames and was left as it is; look it over`);
      for (const what of roundedFrames(project, { frames: settings.fps, per: 1 })) tell(what);
      project = changeRateKeepingSeconds(project, { frames: settings.fps, per: 1 }).project;
    }
    if (format.settings.includes('clip'))
      compileOrFail(from, project, settings.clip === undefined ? {} : { clip: settings.clip });
    const written = await format.write!(project, { ...settings, tell });
    if (!written.ok) throw new FileError(oneLine(from, written.problems));
    const made = written.value.content;
    for (const what of format.carries(project).left)
      if (format.id !== 'csv') tell(`${what} left out: ${format.extensions[0]} has no place for that`);
    if (to !== STREAM) writeWhole(to, made);
    else io.outBytes(typeof made === 'string' ? Buffer.from(made) : made);
    return 0;
  },
};

function outFormat(to: string, args: Arguments): Format {
  const asked = textOption(args, 'to');
  if (to !== STREAM) {
    refuseOptions(args, ['to'], 'goes with OUT - only; a file is written by its extension');
    return formatOf(to, 'write');
  }
  const format = formatNamed(asked ?? '.kaizen.json', 'write');
  if (!format)
    throw new UsageError(`--to is "${asked}"; it must be one of ${extensionsThat('write').join(', ')}`);
  return format;
}

function refuseWhatDoesNotApply(args: Arguments, { settings, whyNot }: Format): void {
  const others = (['frames', 'clip', 'bake', 'tolerance'] as const).filter(
    (name) => !settings.includes(name),
  );
  refuseOptions(args, others, `says nothing of ${whyNot}`);
}

interface Settings extends WriteSettings {
  readonly fps?: number;
}

function readSettings(args: Arguments): Settings {
  const fps = numberOption(args, 'fps');
  if (fps !== undefined && !(fps > 0)) throw new UsageError(`--fps is ${fps}; it must be more than 0`);
  const tolerance = numberOption(args, 'tolerance');
  if (tolerance !== undefined && !(tolerance > 0))
    throw new UsageError(`--tolerance is ${tolerance}; it must be more than 0`);
  const clip = textOption(args, 'clip');
  const span = textOption(args, 'frames');
  return {
    bake: args.options.has('bake'),
    ...(fps === undefined ? {} : { fps }),
    ...(tolerance === undefined ? {} : { tolerance }),
    ...(clip === undefined ? {} : { clip }),
    ...(span === undefined ? {} : { frames: frameSpan(span) }),
  };
}
