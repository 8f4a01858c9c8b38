import {
  plainSentence,
  gltfCarries,
  changeRateKeepingSeconds,
  csvLines,
  exportGltf,
  expressionsCountingFrames,
  roundedFrames,
  frameList,
  writeGlb,
  writeGltfText,
  writeKaizenZip,
  writeProject,
  type GltfOptions,
  type Project,
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
import {
  compileOrFail,
  formatOf,
  nameOf,
  READ_FORMATS,
  readOrFail,
  STREAM,
  WRITE_FORMATS,
  writeWhole,
} from '../files';
import type { Command } from '../command';

export const convert: Command = {
  usage: 'convert IN OUT [--fps N] [--frames A:B] [--clip ID] [--bake] [--tolerance T] [--to EXTENSION]',
  about: [
    `By extension: reads ${READ_FORMATS.join(' ')}, writes ${WRITE_FORMATS.join(' ')}.`,
    '--fps N  another rate, the seconds stay; --frames A:B  this part of the shot (.glb .gltf .csv)',
    '--clip ID  this clip alone (.glb .gltf .csv); --bake  plain nodes with sampled keys (.glb .gltf)',
    '--tolerance T  share of a curve’s range, default 1e-4 (.glb .gltf); --to EXTENSION  the format of OUT -',
    'IN - is standard input, OUT - standard output. What is left out or changed is told on standard error.',
  ],
  run: (argv, io) => {
    const args = parseArguments(argv, ['fps', 'frames', 'clip', 'tolerance', 'to'], ['bake']);
    const [from, to] = args.positional;
    if (from === undefined || to === undefined || args.positional.length > 2)
      throw new UsageError('convert takes two files, IN and OUT');
    if (from !== STREAM) formatOf(from, READ_FORMATS);
    const format = outFormat(to, args);
    refuseWhatDoesNotApply(args, format);
    const settings = readSettings(args);
    const tell = (sentence: string) => io.err(`${plainSentence(`${nameOf(from)}: ${sentence}`)}\n`);
    const read = readOrFail(from, io);
    for (const sentence of read.report) tell(sentence);
    let { project } = read;
    if (settings.fps !== undefined) {
      for (const id of expressionsCountingFrames(project))
        tell(`the expression of driver "${id}" counts frames and was left as it is; look it over`);
      for (const what of roundedFrames(project, { frames: settings.fps, per: 1 })) tell(what);
      project = changeRateKeepingSeconds(project, { frames: settings.fps, per: 1 }).project;
    }
    const made = contents(from, project, format, settings);
    for (const what of leftBy(format, project)) tell(`${what} left out: ${format} has no place for that`);
    if (to !== STREAM) writeWhole(to, made);
    else io.outBytes(typeof made === 'string' ? Buffer.from(made) : made);
    return 0;
  },
};

type OutFormat = (typeof WRITE_FORMATS)[number];

function outFormat(to: string, args: Arguments): OutFormat {
  const asked = textOption(args, 'to');
  if (to !== STREAM) {
    refuseOptions(args, ['to'], 'goes with OUT - only; a file is written by its extension');
    return formatOf(to, WRITE_FORMATS);
  }
  const format = WRITE_FORMATS.find((each) => each === asked || each === `.${asked}`);
  if (asked !== undefined && !format)
    throw new UsageError(`--to is "${asked}"; it must be one of ${WRITE_FORMATS.join(', ')}`);
  return format ?? '.kaizen.json';
}

function refuseWhatDoesNotApply(args: Arguments, format: OutFormat): void {
  if (format === '.kaizen.json' || format === '.kaizen.zip')
    refuseOptions(
      args,
      ['frames', 'clip', 'bake', 'tolerance'],
      `says nothing of a ${format}, which is the whole project`,
    );
  if (format === '.csv')
    refuseOptions(args, ['bake', 'tolerance'], 'says nothing of a .csv, which has every frame as it is');
}

/** What a format has no place for, of what a project has. */
function leftBy(format: OutFormat, project: Project): readonly string[] {
  return format === '.glb' || format === '.gltf' ? gltfCarries(project).left : [];
}

interface Settings {
  readonly fps?: number;
  readonly clip?: string;
  readonly frames?: { readonly start: number; readonly end: number; readonly step: number };
  readonly bake: boolean;
  readonly tolerance?: number;
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

function contents(
  file: string,
  project: Project,
  format: (typeof WRITE_FORMATS)[number],
  settings: Settings,
): Uint8Array | string {
  const { clip, frames = { ...project.range, step: 1 } } = settings;
  switch (format) {
    case '.kaizen.json':
      return writeProject(project);
    case '.kaizen.zip':
      return writeKaizenZip(project);
    case '.csv': {
      const program = compileOrFail(file, project, clip === undefined ? {} : { clip });
      const list = frameList(frames.start, frames.end, frames.step);
      return [...csvLines(program, { frames: list, channels: program.moving })].join('');
    }
    case '.glb':
    case '.gltf': {
      compileOrFail(file, project, clip === undefined ? {} : { clip });
      const options: GltfOptions = {
        bake: settings.bake,
        start: frames.start,
        end: frames.end,
        ...(clip === undefined ? {} : { clip }),
        ...(settings.tolerance === undefined ? {} : { tolerance: settings.tolerance }),
      };
      const made = exportGltf(project, options);
      if (!made.ok)
        throw new FileError(`${nameOf(file)}: ${made.problems[0]?.message ?? 'it can’t be written as glTF'}`);
      return format === '.glb' ? writeGlb(made.value) : writeGltfText(made.value);
    }
  }
}
