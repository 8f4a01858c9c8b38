import { compile, type Problem } from '@kaizen/core';
import { parseArguments, UsageError } from '../arguments';
import { readAny } from '../files';
import type { Command } from '../command';

export const validate: Command = {
  usage: 'validate FILE',
  run: (argv, io) => {
    const args = parseArguments(argv, [], []);
    const [file] = args.positional;
    if (file === undefined || args.positional.length > 1) throw new UsageError('validate takes one file');
    const problems = findProblems(file);
    for (const { pointer, message } of problems)
      io.out(`${pointer}: ${message}\n`.replaceAll(/[\r\n]+(?=.)/g, ' '));
    return problems.length > 0 ? 1 : 0;
  },
};

/** Everything wrong in the file itself; what this version does not evaluate yet is no fault of the file. */
function findProblems(file: string): readonly Problem[] {
  const read = readAny(file);
  if (!read.ok) return read.problems;
  const compiled = compile(read.value);
  return compiled.ok ? [] : compiled.problems.filter((problem) => !problem.notYet);
}
