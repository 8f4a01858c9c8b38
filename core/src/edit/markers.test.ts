import {
  addSound,
  changeRateKeepingFrames,
  changeRateKeepingSeconds,
  changeSound,
  cutFrame,
  keysAfter,
  keysBefore,
  keysButFirst,
  keysOfPose,
  moveRuler,
  putMarker,
  removeMarker,
  removeSound,
} from './index';
import { type Marker } from '../project';
import { readProject, writeProject } from '../file';
import { readKaizenZip, writeKaizenZip } from '../interchange';
import { dataUri, sha256Hex } from '../interchange/asset-bytes';
import { testProject, valueAt } from '../../testing/project';

const X = 'wagon/translate.x';
const Y = 'wagon/translate.y';
const base = testProject({}, [
  {
    channel: X,
    keys: [
      { frame: 0, value: 0 },
      { frame: 24, value: 3 },
      { frame: 48, value: 0 },
    ],
  },
  {
    channel: Y,
    keys: [
      { frame: 12, value: 1 },
      { frame: 24, value: 2 },
    ],
  },
]);
const marker = (fields: Partial<Marker>): Marker => ({
  id: 'm',
  name: 'skip full',
  kind: 'note',
  frame: 24,
  end: null,
  ...fields,
});
const bytes = new TextEncoder().encode('not really a sound');
const asset = {
  id: 'hoot',
  name: 'hoot.wav',
  type: 'audio/wav',
  sha256: sha256Hex(bytes),
  uri: dataUri('audio/wav', bytes),
};
const sound = { id: 's1', asset: 'hoot', start: 12, gain: 1, muted: false };

describe('markers on the ruler', () => {
  it('stand in order of time and are written without their defaults', () => {
    const two = putMarker(
      putMarker(base, marker({ id: 'b', frame: 40 })),
      marker({ id: 'a', kind: 'hold', end: 36 }),
    );
    expect(two.markers.map(({ id }) => id)).toEqual(['a', 'b']);
    expect(putMarker(two, marker({ id: 'b', frame: 2 })).markers.map(({ id }) => id)).toEqual(['b', 'a']);
    const text = writeProject(two);
    expect(JSON.parse(text)).toMatchObject({ markers: [{ kind: 'hold', end: 36 }, { id: 'b' }] });
    expect(text).not.toContain('"note"');
    const read = readProject(text);
    expect(read.ok && read.value.markers).toEqual(two.markers);
    expect(removeMarker(two, 'a').markers).toHaveLength(1);
  });

  it('that end before they begin are refused', () => {
    const read = readProject(JSON.stringify({ ...base, markers: [marker({ end: 3 })] }));
    expect(!read.ok && read.problems[0]).toMatchObject({ pointer: '/markers/0/end' });
  });

  it('go along with an edit of time when asked, with the range and sounds', () => {
    const project = addSound(putMarker(base, marker({ end: 36 })), asset, sound);
    const later = (frame: number) => (frame >= 24 ? frame + 10 : frame);
    const moved = moveRuler(project, later, { range: true, markers: true, sounds: true });
    expect(moved.markers[0]).toMatchObject({ frame: 34, end: 46 });
    expect(moved.range).toMatchObject({ start: 0, end: 110 });
    expect(moved.sounds).toBe(project.sounds);
    const cut = moveRuler(moved, (frame) => cutFrame({ start: 24, end: 34 }, frame), {
      range: true,
      markers: true,
      sounds: true,
    });
    expect(cut).toEqual(project);
    expect(moveRuler(project, later, { range: false, markers: false, sounds: false })).toBe(project);
  });
});

describe('sounds', () => {
  it('keep their file once, and take it along when the last one goes', () => {
    const two = addSound(addSound(base, asset, sound), { ...asset, id: 'again' }, { ...sound, id: 's2' });
    expect(two.assets).toHaveLength(1);
    expect(two.sounds.map((each) => each.asset)).toEqual(['hoot', 'hoot']);
    expect(changeSound(two, 's2', { start: 30 }).sounds[1]).toMatchObject({ start: 30, gain: 1 });
    expect(removeSound(two, 's2').assets).toHaveLength(1);
    expect(removeSound(removeSound(two, 's2'), 's1')).toMatchObject({ assets: [], sounds: [] });
  });

  it('lie beside the project in a zip, with the extension of their kind', () => {
    const zip = readKaizenZip(writeKaizenZip(addSound(base, asset, sound)));
    expect(zip.ok && zip.value.assets).toEqual([asset]);
    expect(new TextDecoder('latin1').decode(writeKaizenZip(addSound(base, asset, sound)))).toContain(
      `assets/${asset.sha256}.wav`,
    );
  });
});

describe('another rate', () => {
  const project = addSound(putMarker(base, marker({ end: 36 })), asset, sound);
  it('keeping seconds moves markers and sounds with the keys', () => {
    const faster = changeRateKeepingSeconds(project, { frames: 48, per: 1 }).project;
    expect(faster.markers[0]).toMatchObject({ frame: 48, end: 72 });
    expect(faster.sounds[0]).toMatchObject({ start: 24 });
  });
  it('keeping frames leaves every frame as it is', () => {
    const faster = changeRateKeepingFrames(project, { frames: 48, per: 1 });
    expect(faster.clips).toBe(project.clips);
    expect(valueAt(faster, X, 13)).toBe(valueAt(project, X, 13));
    expect(changeRateKeepingFrames(project, { frames: 24, per: 1 })).toBe(project);
  });
});

describe('selections by one press', () => {
  const at = (refs: readonly { channel: string; frame: number }[]) =>
    refs.map(({ channel, frame }) => `${channel.at(-1)}${frame}`);
  it('all but the first pose, all after, all before', () => {
    expect(at(keysButFirst(base, [X, Y]))).toEqual(['x24', 'x48', 'y12', 'y24']);
    expect(at(keysButFirst(base, [Y]))).toEqual(['y24']);
    expect(at(keysAfter(base, [X, Y], 24))).toEqual(['x24', 'x48', 'y24']);
    expect(at(keysBefore(base, [X, Y], 12))).toEqual(['x0', 'y12']);
  });
  it('this pose everywhere: keys that have the values of the pose', () => {
    expect(
      at(
        keysOfPose(
          base,
          [X, Y],
          new Map([
            [X, 0],
            [Y, 2],
          ]),
        ),
      ),
    ).toEqual(['x0', 'x48', 'y24']);
  });
});
