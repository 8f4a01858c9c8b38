import type { KeyedCurve, Project, Treatment } from '../../project';
import { DEFAULT_OUTSIDE } from '../../project';
import { curveName, curveRef } from '../curve-ref';
import { changeCurves, newKey } from '../curves';
import { NOTHING_MOVED, type Edited, type Mapping } from '../mapping';

export type TreatmentKind = Treatment['kind'];

/** What a treatment begins as; `height` is how strong a noise is at first, in the channel's unit. */
export function newTreatment(kind: TreatmentKind, height: number): Treatment {
  const base = { weight: 1, muted: false };
  switch (kind) {
    case 'noise':
      return { kind, amplitude: height, period: 12, seed: 1, octaves: 1, loop: null, ...base };
    case 'clamp':
      return { kind, min: null, max: null, ...base };
    case 'gain':
      return { kind, factor: 1, about: 0, ...base };
    case 'delay':
      return { kind, frames: 0, ...base };
    case 'every':
      return { kind, frames: 2, offset: 0, ...base };
  }
}

function changeTreatments(
  project: Project,
  channel: string,
  change: (list: readonly Treatment[]) => readonly Treatment[],
): Project {
  return changeCurves(project, [channel], (curve) => {
    const treatments = change(curve.treatments);
    return treatments === curve.treatments ? curve : { ...curve, treatments };
  });
}

/** Lays another treatment over all that are there. */
export function addTreatment(project: Project, channel: string, treatment: Treatment): Project {
  return changeTreatments(project, channel, (list) => [...list, treatment]);
}

export function removeTreatment(project: Project, channel: string, index: number): Edited {
  const next = changeTreatments(project, channel, (list) => list.filter((_, i) => i !== index));
  const place = (i: number) => (i === index ? null : i > index ? i - 1 : i);
  return { project: next, mapping: weightsMoved(project, next, channel, place) };
}

/** Moves a treatment to another place of the order in which they are laid. */
export function moveTreatment(project: Project, channel: string, from: number, to: number): Edited {
  const next = changeTreatments(project, channel, (list) => {
    const moved = list[from];
    if (!moved || from === to || to < 0 || to >= list.length) return list;
    const rest = list.filter((_, i) => i !== from);
    return [...rest.slice(0, to), moved, ...rest.slice(to)];
  });
  const place = (i: number) => {
    if (i === from) return to;
    const left = i > from ? i - 1 : i;
    return left >= to ? left + 1 : left;
  };
  return { project: next, mapping: weightsMoved(project, next, channel, place) };
}

/** The mapping of treatments that changed places: their weights' curves are called by the places. */
function weightsMoved(
  before: Project,
  after: Project,
  channel: string,
  place: (treatment: number) => number | null,
): Mapping {
  if (before === after) return NOTHING_MOVED;
  return {
    curve: (name) => {
      const ref = curveRef(name);
      if (ref.of !== 'weight' || ref.channel !== channel) return name;
      const treatment = place(ref.treatment);
      return treatment === null ? null : curveName({ ...ref, treatment });
    },
  };
}

/** Replaces one treatment, as its numbers are set. */
export function setTreatment(
  project: Project,
  channel: string,
  index: number,
  treatment: Treatment,
): Project {
  return changeTreatments(project, channel, (list) =>
    list[index] === treatment || !list[index]
      ? list
      : list.map((each, i) => (i === index ? treatment : each)),
  );
}

/** A weight that was a number as a curve that has that number over a span, to be shaped. */
export function weightCurve(weight: number, start: number, end: number): KeyedCurve {
  return {
    keys: [newKey(start, weight), newKey(Math.max(end, start + 1), weight)],
    before: DEFAULT_OUTSIDE,
    after: DEFAULT_OUTSIDE,
  };
}
