/**
 * Checks the types of all projects of the house in one process: a source file that several of them read is parsed once, and each
 * project checks its own files only, as every file that it reads of another one is checked there.
 */
import { dirname, join, relative } from 'node:path';
import { fileURLToPath } from 'node:url';
import ts from 'typescript';

const root = fileURLToPath(new URL('..', import.meta.url));
const PROJECTS = [
  'core/tsconfig.json',
  'core/tsconfig.lib.json',
  'cli/tsconfig.json',
  'server/tsconfig.json',
  'samples/tsconfig.json',
  'studio/tsconfig.json',
  'e2e/tsconfig.json',
  'benchmark/tsconfig.json',
];

const format = {
  getCanonicalFileName: (name) => name,
  getCurrentDirectory: () => root,
  getNewLine: () => '\n',
};
const fail = (diagnostic) => {
  throw new Error(ts.formatDiagnostic(diagnostic, format));
};
/** What is parsed already. Projects differ in their libraries only, which changes nothing of how a file is parsed. */
const parsed = new Map();

function hostOf(options) {
  const host = ts.createCompilerHost(options);
  const read = host.getSourceFile.bind(host);
  host.getSourceFile = (name, version, ...more) => {
    const kind = typeof version === 'object' ? version.impliedNodeFormat : undefined;
    const key = `${kind ?? ''} ${name}`;
    if (!parsed.has(key)) parsed.set(key, read(name, version, ...more));
    return parsed.get(key);
  };
  return host;
}

/** What is wrong in the files that a project names, and in how it is set up. */
function problemsOf(project) {
  const file = join(root, project);
  const { options, fileNames, errors } = ts.getParsedCommandLineOfConfigFile(file, undefined, {
    ...ts.sys,
    onUnRecoverableConfigFileDiagnostic: fail,
  });
  const program = ts.createProgram(fileNames, options, hostOf(options));
  const own = fileNames.filter((name) => !relative(dirname(file), name).startsWith('..'));
  return [
    ...errors,
    ...program.getOptionsDiagnostics(),
    ...program.getGlobalDiagnostics(),
    ...own.flatMap((name) => {
      const source = program.getSourceFile(name);
      return [...program.getSyntacticDiagnostics(source), ...program.getSemanticDiagnostics(source)];
    }),
  ];
}

for (const project of PROJECTS) {
  const began = Date.now();
  const problems = problemsOf(project);
  process.stdout.write(ts.formatDiagnostics(problems, format));
  if (problems.length > 0) process.exitCode = 1;
  const seconds = Math.round((Date.now() - began) / 1000);
  process.stdout.write(`  ${project}: ${problems.length === 0 ? 'good' : 'not good'}, ${seconds} s\n`);
}
