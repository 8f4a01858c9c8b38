import type { Project, Result } from '../../project';
import { activeClip, secondsPerFrame, writeProject } from '../../project';
import { compile, type Program } from '../../evaluate';
import { AnimationWriter } from './animation-writer';
import { GltfBuilder } from './builder';
import { gltfDigest } from './digest';
import type { GltfDocument } from './document';
import type { GltfOptions } from './options';
import { SceneWriter } from './scene-writer';

/**
 * The project as glTF 2.0: parts as chains of plain nodes, materials, cameras, lights; the shot over the range as
 * the first animation, then one animation a clip (contract §10). Times are seconds from the range's start.
 */
export function exportGltf(project: Project, options: GltfOptions = {}): Result<GltfDocument> {
  const shot = compile(project, options.clip === undefined ? {} : { clip: options.clip });
  if (!shot.ok) return shot;
  const builder = new GltfBuilder();
  const scene = new SceneWriter(builder, project, shot.value);
  scene.write();
  const span = { start: options.start ?? project.range.start, end: options.end ?? project.range.end };
  const shotClip = options.clip ?? activeClip(project)?.id;
  const animate = (name: string, program: Program, clip: string | undefined) =>
    new AnimationWriter(builder, project, program, clip, scene, { ...options, ...span }).write(name);
  const first = animate(project.name, shot.value, shotClip);
  if (first) builder.add('animations', first);
  for (const clip of project.clips) {
    if (!first) break;
    if (clip.id === shotClip) {
      builder.add('animations', { ...first, name: clip.name });
      continue;
    }
    const alone = compile(project, { clip: clip.id });
    const animation = alone.ok ? animate(clip.name, alone.value, clip.id) : null;
    if (animation) builder.add('animations', animation);
  }
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
