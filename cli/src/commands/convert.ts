import {
  changeRateKeepingSeconds,
  csvLines,
  exportGltf,
  expressionsCountingFrames,
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
  textOption,
  UsageError,
  type Arguments,
} from '../arguments';
import { compileOrFail, formatOf, READ_FORMATS, readOrFail, WRITE_FORMATS, writeWhole } from '../files';
import type { Command } from '../command';

export const convert: Command = {
  usage: 'convert IN OUT [--fps N] [--frames A:B] [--clip ID] [--bake] [--tolerance T]',
  run: (argv, io) => {
    const args = parseArguments(argv, ['fps', 'frames', 'clip', 'tolerance'], ['bake']);
    const [from, to] = args.positional;
    if (from === undefined || to === undefined || args.positional.length > 2)
      throw new UsageError('convert takes two files, IN and OUT');
    formatOf(from, READ_FORMATS);
    const format = formatOf(to, WRITE_FORMATS);
    const settings = readSettings(args);
    let project = readOrFail(from);
    if (settings.fps !== undefined) {
      for (const id of expressionsCountingFrames(project)) {
        io.err(
          `${from}: the expression of driver "${id}" counts frames and was left as it is; look it over\n`,
        );
      }
      project = changeRateKeepingSeconds(project, { frames: settings.fps, per: 1 });
    }
    writeWhole(to, contents(from, project, format, settings));
    return 0;
  },
};

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
        throw new FileError(`${file}: ${made.problems[0]?.message ?? 'it can’t be written as glTF'}`);
      return format === '.glb' ? writeGlb(made.value) : writeGltfText(made.value);
    }
  }
}
