import type { Project, Result } from '../../project';
import { activeClip, secondsPerFrame } from '../../project';
import { writeProject } from '../../file';
import { compile } from '../../evaluate';
import { Shot } from '../../shot';
import { AnimationWriter } from './animation-writer';
import { GltfBuilder } from './builder';
import { gltfDigest } from './digest';
import type { GltfDocument } from './document';
import type { GltfOptions } from './options';
import { SceneWriter } from './scene-writer';

const DEFAULT_TOLERANCE = 1e-4;

/**
 * The project as glTF 2.0: parts as chains of plain nodes, materials, cameras, lights; the shot over the range as
 * the first animation, then one animation a clip (contract §10). Times are seconds from the range's start.
 */
export function exportGltf(project: Project, options: GltfOptions = {}): Result<GltfDocument> {
  const shot = compile(project, options.clip === undefined ? {} : { clip: options.clip });
  if (!shot.ok) return shot;
  const builder = new GltfBuilder();
  const span = { start: options.start ?? project.range.start, end: options.end ?? project.range.end };
  const settings = {
    ...span,
    bake: options.bake === true,
    tolerance: options.tolerance ?? DEFAULT_TOLERANCE,
  };
  const finished = new Shot(project, shot.value, { ...settings, clip: options.clip });
  const laid = options.clip === undefined && project.arrangement.length > 0;
  const shotClip = laid ? undefined : (options.clip ?? activeClip(project)?.id);
  const alone = new Map<string, Shot>();
  for (const { id } of project.clips) {
    const program = id === shotClip ? null : compile(project, { clip: id });
    if (program?.ok) alone.set(id, new Shot(project, program.value, { ...settings, clip: id }));
  }
  const scene = new SceneWriter(builder, finished, [...alone.values()], (message) => options.tell?.(message));
  scene.write();
  const animate = (name: string, of: Shot) =>
    new AnimationWriter(builder, of, scene, of === finished).write(name);
  const first = animate(project.name, finished);
  if (first) builder.add('animations', first);
  for (const clip of first ? project.clips : []) {
    const of = alone.get(clip.id);
    const animation = clip.id === shotClip ? { ...first!, name: clip.name } : of && animate(clip.name, of);
    if (animation) builder.add('animations', animation);
  }
  for (const part of leaning(finished))
    options.tell?.(
      `${part} leans under uneven sizes of its parents, and glTF has no leaning: it stands without`,
    );
  const made = builder.finish();
  made.json.asset.extras = {
    kaizen: {
      version: 1,
      digest: gltfDigest(made),
      project: JSON.parse(writeProject(project)) as unknown,
      start: span.start,
      secondsPerFrame: secondsPerFrame(project.rate),
    },
  };
  return { ok: true, value: made };
}

/** Names of parts held by constraints whose matrices lean somewhere: place, turn and size can't say that. */
function leaning(shot: Shot): readonly string[] {
  return shot.program.structure.parts.flatMap(({ name }, part) =>
    shot.isHeld(part) && shot.matrixOf(part).leans ? [name] : [],
  );
}
