import {
  AnimationClip,
  AnimationMixer,
  InterpolateSmooth,
  NumberKeyframeTrack,
  Object3D,
  VectorKeyframeTrack,
  type KeyframeTrack,
} from 'three';
import { compile, type Project } from '@kaizen/core';
import { keyedProject } from './keyed-project';
import { measure, type Result } from './measure';

const PARTS = 1000;
const KEYS = 40;
const LAST = 1000;
/** Six channels a part: place and size by vectors for three.js, so that both have 6,000 numbers to make. */
const PROPERTIES = ['translate.x', 'translate.y', 'translate.z', 'scale.x', 'scale.y', 'scale.z'];

function frames(random: () => number): number[] {
  return Array.from({ length: KEYS }, (_, i) => (i + 0.1 + 0.8 * random()) * (LAST / KEYS));
}

/** A project of `count` parts with six curves each. */
export function manyCurves(count: number): Project {
  return keyedProject(count, PROPERTIES, LAST, frames);
}

/** three.js with as many cubic tracks on as many objects: an AnimationMixer samples and applies them. */
function mixerOf(project: Project): AnimationMixer {
  const root = new Object3D();
  const tracks: KeyframeTrack[] = [];
  const curves = project.clips[0]!.curves;
  project.parts.forEach((part, p) => {
    const object = new Object3D();
    object.name = part.id;
    root.add(object);
    (['position', 'scale'] as const).forEach((name, n) => {
      const [x, y, z] = [0, 1, 2].map((axis) => curves[p * 6 + n * 3 + axis]!.keys);
      const values = x!.flatMap((key, i) => [key.value, y![i]!.value, z![i]!.value]);
      tracks.push(
        new VectorKeyframeTrack(
          `${part.id}.${name}`,
          x!.map((key) => key.frame / 24),
          values,
          InterpolateSmooth,
        ),
      );
    });
  });
  const mixer = new AnimationMixer(root);
  mixer.clipAction(new AnimationClip('many', LAST / 24, tracks)).play();
  return mixer;
}

/** As many tracks of one number each, as six separate channels are: what a mixer does with channels as Kaizen has them. */
function numberMixerOf(project: Project): AnimationMixer {
  const root = new Object3D();
  const tracks: KeyframeTrack[] = [];
  const curves = project.clips[0]!.curves;
  project.parts.forEach((part, p) => {
    const object = new Object3D();
    object.name = part.id;
    root.add(object);
    ['position[x]', 'position[y]', 'position[z]', 'scale[x]', 'scale[y]', 'scale[z]'].forEach((name, n) => {
      const { keys } = curves[p * 6 + n]!;
      tracks.push(
        new NumberKeyframeTrack(
          `${part.id}.${name}`,
          keys.map((key) => key.frame / 24),
          keys.map((key) => key.value),
          InterpolateSmooth,
        ),
      );
    });
  });
  const mixer = new AnimationMixer(root);
  mixer.clipAction(new AnimationClip('many', LAST / 24, tracks)).play();
  return mixer;
}

/** A bare loop of as many Hermite cubics over flat typed arrays, with a binary search each. */
function bareHermite(project: Project): (frame: number) => void {
  const { curves } = project.clips[0]!;
  const times = new Float64Array(curves.length * KEYS);
  const values = new Float64Array(curves.length * KEYS);
  const slopes = new Float64Array(curves.length * KEYS);
  const out = new Float64Array(curves.length);
  curves.forEach(({ keys }, c) => {
    keys.forEach((key, i) => {
      times[c * KEYS + i] = key.frame;
      values[c * KEYS + i] = key.value;
      const [a, b] = [keys[i - 1], keys[i + 1]];
      slopes[c * KEYS + i] = a && b ? (b.value - a.value) / (b.frame - a.frame) : 0;
    });
  });
  return (frame) => {
    for (let c = 0; c < curves.length; c++) {
      let low = c * KEYS;
      let high = low + KEYS - 1;
      while (high - low > 1) {
        const middle = (low + high) >> 1;
        if (times[middle]! <= frame) low = middle;
        else high = middle;
      }
      const h = times[high]! - times[low]!;
      const t = Math.min(1, Math.max(0, (frame - times[low]!) / h));
      const u = 1 - t;
      out[c] =
        values[low]! * (1 + 2 * t) * u * u +
        slopes[low]! * h * t * u * u +
        values[high]! * t * t * (3 - 2 * t) -
        slopes[high]! * h * t * t * u;
    }
  };
}

export function runFrame(): Result[] {
  const project = manyCurves(PARTS);
  const compiled = compile(project);
  if (!compiled.ok) throw new Error(JSON.stringify(compiled.problems));
  const program = compiled.value;
  const out = program.createOutput();
  const clock = () => {
    let frame = 0;
    return () => (frame = (frame + 1) % LAST);
  };
  const [own1, number1, vector1, bare1] = [clock(), clock(), clock(), clock()];
  const vectors = mixerOf(project);
  const numbers = numberMixerOf(project);
  const bare = bareHermite(project);
  const [own, byNumbers, byVectors, byHand] = measure([
    { name: 'program.run', run: () => program.run(own1(), out) },
    { name: 'AnimationMixer, a track a channel', run: () => void numbers.setTime(number1() / 24) },
    { name: 'AnimationMixer, a track a vector', run: () => void vectors.setTime(vector1() / 24) },
    { name: 'bare Hermite loop', run: () => bare(bare1()) },
  ]) as [number, number, number, number];
  const each = `${own.toFixed(2)} ms a frame, matrices included`;
  return [
    {
      what: `program.run, 6,000 channels of 40 keys, 1,000 parts (${each}), against three.js’ AnimationMixer with as many cubic tracks (${byNumbers.toFixed(2)} ms)`,
      measured: `${(byNumbers / own).toFixed(2)} times as fast`,
      wanted: 'at least 10',
      good: byNumbers / own >= 10,
    },
    {
      what: `the same against an AnimationMixer with two vector tracks a part (${byVectors.toFixed(2)} ms): a third as many searches, for comparison only`,
      measured: `${(byVectors / own).toFixed(2)} times as fast`,
      wanted: '–',
      good: true,
    },
    {
      what: `the same against a bare loop of 6,000 Hermite cubics over flat arrays, a binary search each, no matrices (${byHand.toFixed(2)} ms)`,
      measured: `${(own / byHand).toFixed(2)} times as slow`,
      wanted: 'at most 1.2',
      good: own / byHand <= 1.2,
    },
  ];
}
