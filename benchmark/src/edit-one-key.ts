import 'fake-indexeddb/auto';
import { compile, moveKeys, type Program, type Project, curvePolyline } from '@kaizen/core';
import { openDatabase, type Database } from '../../studio/src/app/storage/database';
import { save, type Kept } from '../../studio/src/app/storage/save';
import type { Snapshot } from '../../studio/src/app/state/document';
import { manyCurves } from './run-frame';
import { median, type Result } from './measure';

const ROUNDS = 300;
const NO_LOOSE: Snapshot['loose'] = [];

interface Bench {
  readonly db: Database;
  project: Project;
  program: Program;
  saved: Kept;
  revision: number;
}

async function benchOf(parts: number): Promise<Bench> {
  const project = manyCurves(parts);
  const compiled = compile(project);
  if (!compiled.ok) throw new Error('does not compile');
  const db = await openDatabase(`bench-${parts}`);
  const saved = keptOf(project);
  await save(db, { token: 'bench', revision: 0 }, null, saved);
  return { db, project, program: compiled.value, saved, revision: 1 };
}

function keptOf(project: Project): Kept {
  const snapshot: Snapshot = { project, loose: NO_LOOSE };
  const record = { id: project.id, name: project.name, rate: '24 fps', changed: 0, loose: 0 };
  return { snapshot, record, bench: null, picture: '', bytes: new Map() };
}

/** Moves one key: the edit, the recompile, the polyline that the Chart draws, and the save. Gives the milliseconds. */
async function moveOne(bench: Bench): Promise<number> {
  const { channel, keys } = bench.project.clips[0]!.curves[7]!;
  const began = performance.now();
  const project = moveKeys(bench.project, [{ channel, frame: keys[20]!.frame }], {
    frames: 0,
    value: 0.001,
  }).project;
  const compiled = compile(project, { previous: bench.program });
  if (!compiled.ok) throw new Error('does not compile');
  const { structure } = compiled.value;
  const line = curvePolyline(compiled.value.curveAt(structure.slots.get(channel)!)!, 0, 1000, 1);
  const next = keptOf(project);
  const { written } = await save(bench.db, { token: 'bench', revision: bench.revision }, bench.saved, next);
  const took = performance.now() - began;
  if (line.points.length === 0) throw new Error('nothing drawn');
  Object.assign(bench, { project, program: compiled.value, saved: next, revision: written!.revision });
  return took;
}

export async function editOneKey(): Promise<Result[]> {
  const [small, large] = [await benchOf(10), await benchOf(1000)];
  const times: [number[], number[]] = [[], []];
  for (let round = 0; round < ROUNDS; round++) {
    times[0].push(await moveOne(small));
    times[1].push(await moveOne(large));
  }
  const [few, many] = times.map((list) => median(list.slice(50))) as [number, number];
  return [
    {
      what: `one key moved in a project of 6,000 curves (${many.toFixed(2)} ms: edit, recompile, what the Chart draws, save), against one of 60 (${few.toFixed(2)} ms)`,
      measured: `${(many / few).toFixed(2)} times the cost`,
      wanted: 'at most 1.5',
      good: many / few <= 1.5,
    },
  ];
}
