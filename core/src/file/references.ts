import {
  jsonPointer,
  namingsIn,
  partProperties,
  splitChannel,
  TRANSFORM_PLACES,
  type Curve,
  type KeyedCurve,
  type Naming,
  type Part,
  type Problem,
  type Project,
  type Take,
  type Treatment,
  type Weight,
} from '../project';
import { legRefusal, mappedChannel, PLACEMENT, placementRefusal, treatmentRefusal } from '../curve';
import { driverReads, driverRefusal } from '../drive';
import { constraintReads, constraintRefusal } from '../rig';
import { interlockProblems } from './interlock-problems';
import { LIMITS } from './limits';
import { interlockReads } from './project-fields';

/** Keys nearer than this many frames are refused. */
export const LEAST_KEY_GAP = 1e-6;

/**
 * What a schema cannot say: ids that are unique and exist, channels that their part has, rings of parents,
 * the order of keys, pins on inner keys, limits and clamps the right way round.
 */
export function referenceProblems(project: Project): Problem[] {
  const problems: Problem[] = [];
  const report = (pointer: string, message: string) => problems.push({ pointer, message });
  const parts = indexById(project.parts, 'parts', report);
  const clips = indexById(project.clips, 'clips', report);
  const assets = indexById(project.assets, 'assets', report);
  for (const list of [
    'drivers',
    'constraints',
    'interlocks',
    'arrangement',
    'markers',
    'sounds',
    'poses',
  ] as const)
    indexById<{ readonly id: string }>(project[list], list, report);

  if (project.range.end < project.range.start) {
    report(
      '/range/end',
      `${project.range.end} is before the start, ${project.range.start}; it must be at or after it`,
    );
  }
  if (project.clips.length > 0 ? !clips.has(project.activeClip) : project.activeClip !== null) {
    report(
      '/activeClip',
      `no clip has the id ${JSON.stringify(project.activeClip)}; it must be one of the clips' ids`,
    );
  }
  project.parts.forEach((part, i) => checkPart(part, jsonPointer('parts', i), parts, assets, report));
  const before = problems.length;
  reportParentRings(project.parts, parts, report);
  if (problems.length === before) reportDepth(project.parts, parts, report);

  const channels = new ChannelIndex(parts);
  project.clips.forEach((clip, i) => {
    const seen = new Map<string, number>();
    clip.curves.forEach((curve, j) => {
      const at = `/clips/${i}/curves/${j}`;
      channels.check(curve.channel, at + '/channel', report);
      const earlier = seen.get(curve.channel);
      if (earlier !== undefined) {
        report(
          at + '/channel',
          `${curve.channel} has a curve already, number ${earlier}; a clip may have one curve a channel`,
        );
      }
      seen.set(curve.channel, j);
      checkCurve(curve, at, report);
    });
  });
  const known: Known = { parts, clips, assets, channels };
  project.drivers.forEach((driver, i) => {
    const at = jsonPointer('drivers', i);
    channels.check(driver.target, at + '/target', report);
    checkNamings(driverReads(driver), at, known, report);
    if (driver.kind === 'map') checkKeyed(driver.curve, at + '/curve', report, false);
    const refused = driverRefusal(driver);
    if (refused) report(at + jsonPointer(...refused.at), refused.message);
  });
  project.constraints.forEach((constraint, i) => {
    const at = jsonPointer('constraints', i);
    if (!parts.has(constraint.part)) reportUnknownPart(constraint.part, at + '/part', report);
    checkNamings(constraintReads(constraint), at, known, report);
    const refused = constraintRefusal(constraint);
    if (refused) report(at + jsonPointer(...refused.at), refused.message);
  });
  project.arrangement.forEach((placement, i) => {
    const at = jsonPointer('arrangement', i);
    checkNamings(namingsIn(PLACEMENT, placement), at, known, report);
    checkWeight(placement.weight, at + '/weight', report);
    if (placement.time) checkKeyed(placement.time, at + '/time', report, false);
    const refused = placementRefusal(placement);
    if (refused) report(at + jsonPointer(...refused.at), refused.message);
    else checkPlaced(project, placement, at, channels, report);
  });
  const beforeLocks = problems.length;
  project.interlocks.forEach((lock, i) =>
    checkNamings(interlockReads(lock), jsonPointer('interlocks', i), known, report),
  );
  if (problems.length === beforeLocks) problems.push(...interlockProblems(project));
  checkRuler(project, assets, report);
  project.poses.forEach((pose, i) => {
    for (const channel of Object.keys(pose.values))
      channels.check(channel, `/poses/${i}/values${jsonPointer(channel)}`, report);
  });
  return problems;
}

function checkRuler(project: Project, assets: ReadonlyMap<string, unknown>, report: Report): void {
  project.markers.forEach(({ frame, end }, i) => {
    if (end !== null && end < frame)
      report(`/markers/${i}/end`, `${end} is before the marker's frame, ${frame}; it must be at or after it`);
  });
  project.sounds.forEach(({ asset }, i) => {
    if (!assets.has(asset))
      report(`/sounds/${i}/asset`, `no asset has the id "${asset}"; it must be one of the assets' ids`);
  });
}

type Report = (pointer: string, message: string) => void;

function indexById<T extends { readonly id: string }>(
  list: readonly T[],
  name: string,
  report: Report,
): Map<string, T> {
  const index = new Map<string, T>();
  list.forEach((item, i) => {
    if (index.has(item.id))
      report(jsonPointer(name, i, 'id'), `the id "${item.id}" stands twice in ${name}; ids must be unique`);
    else index.set(item.id, item);
  });
  return index;
}

function reportUnknownPart(id: string, pointer: string, report: Report): void {
  report(pointer, `no part has the id "${id}"; it must be one of the parts' ids`);
}

function checkPart(
  part: Part,
  at: string,
  parts: ReadonlyMap<string, Part>,
  assets: ReadonlyMap<string, unknown>,
  report: Report,
): void {
  if (part.parent !== null && !parts.has(part.parent)) reportUnknownPart(part.parent, at + '/parent', report);
  if (part.kind === 'mesh' && part.geometry.shape === 'asset' && !assets.has(part.geometry.asset)) {
    report(
      at + '/geometry/asset',
      `no asset has the id "${part.geometry.asset}"; it must be one of the assets' ids`,
    );
  }
  if (part.kind === 'mesh' && part.geometry.shape === 'asset')
    part.geometry.skin?.forEach((joint, i) => {
      if (!parts.has(joint)) reportUnknownPart(joint, `${at}/geometry/skin/${i}`, report);
    });
  if (part.kind === 'camera' && part.camera.near >= part.camera.far) {
    report(
      at + '/camera/near',
      `near is ${part.camera.near} and far ${part.camera.far}; near must be less than far`,
    );
  }
  checkDeformation(part, at, report);
  const names = new Set<string>();
  part.custom.forEach((custom, i) => {
    if (names.has(custom.name)) {
      report(
        `${at}/custom/${i}/name`,
        `"${custom.name}" stands twice; a part's own channels must have different names`,
      );
    }
    names.add(custom.name);
  });
  const limits = Object.entries(part.limits);
  if (limits.length === 0) return;
  const properties = new Set(partProperties(part).map((entry) => entry.property));
  for (const [property, limit] of limits) {
    const pointer = at + jsonPointer('limits', property);
    if (!properties.has(property))
      report(pointer, `${part.id} has no channel "${property}"; limits must name a channel of the part`);
    if (typeof limit.min === 'number' && typeof limit.max === 'number' && limit.min > limit.max) {
      report(pointer, `min ${limit.min} is more than max ${limit.max}; min must not be more than max`);
    }
  }
}

function checkDeformation(part: Part, at: string, report: Report): void {
  const round = part.squash?.round;
  if (round) {
    const pointer = at + '/squash/round';
    if (part.kind !== 'mesh') report(pointer, `"${part.id}" is a ${part.kind}; only a mesh can be rounded`);
    if (part.squash.frame !== 'part')
      report(at + '/squash/frame', 'a rounded squash stands in the frame of the part; frame must be "part"');
    if (!(round.from < round.to))
      report(pointer + '/to', `to is ${round.to} and from ${round.from}; from must be less than to`);
  }
  if (part.kind !== 'mesh') return;
  const morphs = new Set<string>();
  part.morphs.forEach(({ name }, i) => {
    if (morphs.has(name))
      report(
        `${at}/morphs/${i}/name`,
        `"${name}" stands twice; a part's morph targets must have different names`,
      );
    morphs.add(name);
  });
}

/** How many parts stand on top of each other, at most; no ring may be among them. */
function reportDepth(parts: readonly Part[], byId: ReadonlyMap<string, Part>, report: Report): void {
  const depths = new Map<string, number>();
  for (const [i, part] of parts.entries()) {
    const path: Part[] = [];
    let at: Part | undefined = part;
    while (at && !depths.has(at.id)) {
      path.push(at);
      at = at.parent === null ? undefined : byId.get(at.parent);
    }
    let depth = at ? depths.get(at.id)! : 0;
    for (const each of path.reverse()) depths.set(each.id, ++depth);
    if (depth > LIMITS.partDepth) {
      report(
        jsonPointer('parts', i, 'parent'),
        `${part.id} is part number ${depth} in a row of parts that hang below each other; at most ${LIMITS.partDepth} may`,
      );
      return;
    }
  }
}

function reportParentRings(parts: readonly Part[], byId: ReadonlyMap<string, Part>, report: Report): void {
  const done = new Set<string>();
  parts.forEach((part, i) => {
    const path: string[] = [];
    const onPath = new Set<string>();
    let at: Part | undefined = part;
    while (at && !done.has(at.id)) {
      if (onPath.has(at.id)) {
        const ring = [...path.slice(path.indexOf(at.id)), at.id];
        report(
          jsonPointer('parts', i, 'parent'),
          `the parents run in a ring: ${ring.join(' → ')}; a part must not be above itself`,
        );
        break;
      }
      onPath.add(at.id);
      path.push(at.id);
      at = at.parent === null ? undefined : byId.get(at.parent);
    }
    for (const id of path) done.add(id);
  });
}

class ChannelIndex {
  private readonly properties = new Map<string, ReadonlySet<string>>();
  constructor(private readonly parts: ReadonlyMap<string, Part>) {}

  check(channel: string, pointer: string, report: Report): void {
    const { part: id, property } = splitChannel(channel);
    const part = this.parts.get(id);
    if (!part) {
      report(
        pointer,
        `no part has the id "${id}", so there is no channel ${channel}; it must be <part id>/<property>`,
      );
      return;
    }
    if (TRANSFORM_PLACES.has(property)) return;
    let properties = this.properties.get(id);
    if (!properties) {
      properties = new Set(partProperties(part).map((entry) => entry.property));
      this.properties.set(id, properties);
    }
    if (!properties.has(property)) {
      report(
        pointer,
        `${part.kind} "${id}" has no "${property}"; it has ${[...properties].slice(0, 12).join(', ')} …`,
      );
    }
  }
}

function checkCurve(curve: Curve, at: string, report: Report): void {
  checkTake(curve, at, report);
  if (curve.otherTake) checkTake(curve.otherTake, `${at}/otherTake`, report);
}

function checkTake(curve: Take, at: string, report: Report): void {
  checkKeyed(curve, at, report);
  curve.treatments.forEach((treatment, i) => checkTreatment(treatment, `${at}/treatments/${i}`, report));
}

function checkKeyed(curve: KeyedCurve, at: string, report: Report, timeAxis = true): void {
  const keys: readonly KeyToCheck[] = curve.keys;
  for (let i = 0; i < keys.length; i++) {
    const { leg } = keys[i]!;
    if (i > 0 && tooClose(keys[i - 1]!, keys[i]!))
      reportGap(keys[i - 1]!, keys[i]!, `${at}/keys/${i}/frame`, report);
    if (leg && leg.kind !== 'curve') {
      const refused = legRefusal(leg, timeAxis);
      if (refused) report(`${at}/keys/${i}/leg`, refused);
    }
  }
  for (const side of ['before', 'after'] as const) {
    const { pin, mode } = curve[side];
    if (pin === null || mode === 'hold' || mode === 'run-on') continue;
    if (!curve.keys.slice(1, -1).some((key) => key.frame === pin)) {
      report(
        `${at}/${side}/pin`,
        `no inner key stands at frame ${pin}; a pin must be the frame of a key between the first and the last`,
      );
    }
  }
}

/** A key as a file may have it, its defaults put in or not. */
interface KeyToCheck {
  readonly frame: number;
  readonly leg?: KeyedCurve['keys'][number]['leg'];
}

function tooClose(last: KeyToCheck, key: KeyToCheck): boolean {
  const gap = key.frame - last.frame;
  if (gap >= LEAST_KEY_GAP) return false;
  const rounding = 4 * Number.EPSILON * Math.max(Math.abs(key.frame), Math.abs(last.frame));
  return gap < LEAST_KEY_GAP - rounding;
}

function reportGap(last: KeyToCheck, key: KeyToCheck, pointer: string, report: Report): void {
  report(
    pointer,
    `frame ${key.frame} comes ${key.frame > last.frame ? 'too close ' : ''}after a key at ${last.frame}; keys must rise by at least 0.000001 frames`,
  );
}

function checkWeight(weight: Weight, at: string, report: Report): void {
  if (typeof weight !== 'number') checkKeyed(weight, at, report);
}

function checkTreatment(treatment: Treatment, at: string, report: Report): void {
  checkWeight(treatment.weight, at + '/weight', report);
  const refused = treatmentRefusal(treatment);
  if (refused) report(`${at}/${refused.at}`, refused.message);
}

/** What a project has that can be named. */
interface Known {
  readonly parts: ReadonlyMap<string, Part>;
  readonly clips: ReadonlyMap<string, unknown>;
  readonly assets: ReadonlyMap<string, unknown>;
  readonly channels: ChannelIndex;
}

function checkNamings(namings: readonly Naming[], at: string, known: Known, report: Report): void {
  for (const naming of namings) {
    const pointer = at + jsonPointer(...naming.at);
    switch (naming.names) {
      case 'part': {
        const part = known.parts.get(naming.id);
        if (!part) reportUnknownPart(naming.id, pointer, report);
        else if (naming.partKind && part.kind !== naming.partKind)
          report(pointer, `"${naming.id}" is a ${part.kind}; it must be a part of kind ${naming.partKind}`);
        break;
      }
      case 'channel':
        known.channels.check(naming.id, pointer, report);
        break;
      case 'clip':
        if (!known.clips.has(naming.id))
          report(pointer, `no clip has the id "${naming.id}"; it must be one of the clips' ids`);
        break;
      case 'asset':
        if (!known.assets.has(naming.id))
          report(pointer, `no asset has the id "${naming.id}"; it must be one of the assets' ids`);
    }
  }
}

/** Where the curves of a placed clip arrive once its parts are renamed: on channels that are there, one curve on each. */
function checkPlaced(
  project: Project,
  placement: Project['arrangement'][number],
  at: string,
  channels: ChannelIndex,
  report: Report,
): void {
  const clip = project.clips.find(({ id }) => id === placement.clip);
  if (!clip || placement.muted || Object.keys(placement.partMap).length === 0) return;
  const arrived = new Map<string, string>();
  for (const { channel, muted } of clip.curves) {
    if (muted) continue;
    const mapped = mappedChannel(placement.partMap, channel);
    if (mapped !== channel) channels.check(mapped, at + '/partMap', report);
    const other = arrived.get(mapped);
    if (other !== undefined)
      report(
        at + '/partMap',
        `the curves of ${other} and ${channel} both arrive at ${mapped}; one curve a channel may`,
      );
    arrived.set(mapped, channel);
  }
}
