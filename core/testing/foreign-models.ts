import { existsSync, readdirSync, readFileSync, statSync } from 'node:fs';
import { dirname, join, relative } from 'node:path';
import { bringModel, compile, distance, inWorld, isBringProblem, type Program, type Project } from '../src';
import { writeGlb } from '../src/interchange/gltf/container';
import type { GltfDocument } from '../src/interchange/gltf/document';
import { openModel } from '../src/interchange/gltf/open-model';
import { complaints, glbOf, playGlb, POINTS, type PlayedGltf } from './gltf';

/** What became of a model that others made. */
export interface ModelChecked {
  readonly file: string;
  /** Why it was refused, in a sentence; null where it was opened. */
  readonly refused: string | null;
  /** Nodes compared, and how far their points are from where three.js has them, in metres: as brought, and as handed over again. */
  readonly nodes: number;
  readonly brought: number;
  readonly handedOver: number;
  /** Kinds of errors that Khronos' validator finds in what was handed over and not in the file itself. */
  readonly errors: readonly string[];
  /** Kinds of errors in the file itself: what it shows then is everybody's own guess. */
  readonly faults: readonly string[];
}

const TIMES = 200;
/** All GLB and glTF files below a folder. */
export function modelsBelow(folder: string): string[] {
  return readdirSync(folder)
    .flatMap((name) => {
      const path = join(folder, name);
      if (statSync(path).isDirectory()) return modelsBelow(path);
      return /\.(glb|gltf)$/i.test(name) ? [path] : [];
    })
    .sort();
}

/** Brings a model, plays it beside three.js, hands it over, and plays that. */
export async function checkModel(path: string, root: string): Promise<ModelChecked> {
  const file = relative(root, path);
  const beside = (name: string) => {
    const there = join(dirname(path), name);
    return existsSync(there) ? new Uint8Array(readFileSync(there)) : null;
  };
  const files = { name: file, bytes: new Uint8Array(readFileSync(path)), beside };
  const nothing = { file, refused: null, nodes: 0, brought: 0, handedOver: 0, errors: [], faults: [] };
  const brought = await bringModel(files);
  if (isBringProblem(brought)) return { ...nothing, refused: `${brought.pointer} ${brought.message}` };
  const { project } = brought;
  const compiled = compile(project);
  if (!compiled.ok) return { ...nothing, refused: JSON.stringify(compiled.problems[0]) };
  const document = await openModel(files);
  const own = glbOf(project);
  const faults = await errorsOf(writeGlb(document));
  const errors = (await errorsOf(own)).filter((error) => !faults.includes(error));
  const given = await playGlb(writeGlb(withoutPictures(document)), true).catch(() => null);
  if (!given) return { ...nothing, refused: 'three.js does not read it', faults };
  const again = await playGlb(writeGlb(withoutPictures(await openModel({ name: file, bytes: own }))));
  return { ...nothing, ...compared(compiled.value, project, given, again), errors, faults };
}

/** The kinds of errors that Khronos' validator finds. */
async function errorsOf(glb: Uint8Array): Promise<string[]> {
  const found = (await complaints(glb)) as readonly { readonly severity: number; readonly code: string }[];
  return [...new Set(found.flatMap(({ severity, code }) => (severity === 0 ? [code] : [])))];
}

/** A document without pictures, which three.js reads in a page only. */
function withoutPictures({ json, bin }: GltfDocument): GltfDocument {
  const plain = JSON.parse(
    JSON.stringify(json, (key, value: unknown) =>
      /^(images|textures|.*Texture)$/.test(key) ? undefined : value,
    ),
  ) as GltfDocument['json'];
  return { json: plain, bin };
}

/** How far apart the nodes of a model are in the project, in three.js from the file, and in three.js from what was handed over. */
function compared(
  program: Program,
  project: Project,
  given: PlayedGltf,
  again: PlayedGltf,
): Pick<ModelChecked, 'nodes' | 'brought' | 'handedOver'> {
  const seconds = Math.max(1, given.animations[0]?.duration ?? 0);
  const { frames, per } = project.rate;
  const matrix = new Float64Array(16);
  let [nodes, brought, handedOver] = [0, 0, 0];
  project.parts.forEach(({ id }, part) => {
    const [first, second] = [given.nodeAt(part), again.nodeNamed(id)];
    if (!first || !second) return;
    nodes++;
    for (let i = 0; i < TIMES; i++) {
      const time = (seconds * (i + 0.37)) / TIMES;
      program.worldMatrix(part, (time * frames) / per, matrix);
      for (const point of POINTS) {
        const here = inWorld(matrix, point);
        brought = Math.max(brought, distance(here, given.placeOf(first, point, time)));
        handedOver = Math.max(handedOver, distance(here, again.placeOf(second, point, time)));
      }
    }
  });
  return { nodes, brought, handedOver };
}
