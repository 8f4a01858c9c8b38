import '@angular/compiler';
import { layPlot, headHeight, MARKER_ROW, RULER, SOUND_ROW } from '../plot/plot';
import { snapFrame } from '../plot/snap';
import { rangeOfKeys } from '../chart/draggable/key-range';
import { chartProject } from '../../testing/chart-project';
import { markerBox } from './draw-marks';
import { movedMarker } from '../chart/draggable/marker';
import { peaksOf } from './sound-shelf';
import { soundType } from '../../open/files';

const marker = { id: 'm', name: 'skip full', kind: 'note' as const, frame: 10, end: 30 };

describe('the ruler', () => {
  it('is as high as what stands on it', () => {
    const project = chartProject();
    expect(headHeight(project)).toBe(RULER);
    expect(headHeight({ ...project, markers: [marker] })).toBe(RULER + MARKER_ROW);
    const sound = { id: 's', asset: 'a', start: 0, gain: 1, muted: false };
    expect(headHeight({ markers: [marker], sounds: [sound] })).toBe(RULER + MARKER_ROW + SOUND_ROW);
  });

  it('shows a span from its frame to its end, and a name where there is no end', () => {
    const plot = layPlot({ first: 0, last: 100 }, 500, 300, []);
    expect(markerBox(plot, marker, 60)).toEqual({ left: 50, right: 150 });
    expect(markerBox(plot, { ...marker, end: null }, 60)).toEqual({ left: 50, right: 124 });
  });

  it('lets a marker slide as a whole or by an end, which does not pass the other', () => {
    expect(movedMarker(marker, 'whole', 5)).toMatchObject({ frame: 15, end: 35 });
    expect(movedMarker(marker, 'start', 50)).toMatchObject({ frame: 30, end: 30 });
    expect(movedMarker(marker, 'end', -50)).toMatchObject({ frame: 10, end: 10 });
    expect(movedMarker({ ...marker, end: null }, 'whole', -3)).toMatchObject({ frame: 7, end: null });
  });
});

describe('snapping', () => {
  it('goes to the nearest marker or key within seven pixels, else to a whole frame or a thousandth', () => {
    const to = { whole: true, frames: [24.5, 40], framesPerPixel: 0.2 };
    expect(snapFrame(25.6, to)).toBe(24.5);
    expect(snapFrame(26.2, to)).toBe(26);
    expect(snapFrame(39, to)).toBe(40);
    expect(snapFrame(26.23456, { ...to, whole: false })).toBe(26.235);
    expect(snapFrame(24.6, { ...to, frames: [] })).toBe(25);
  });
});

describe('a range of keys', () => {
  it('goes from the chosen key to the clicked one, on the channels of both', () => {
    const chosen = [{ channel: 'wagon/translate.x', frame: 24 }];
    const clicked = [{ channel: 'hook/translate.y', frame: 36 }];
    expect(rangeOfKeys(chartProject(), chosen, clicked)).toEqual([...chosen, ...clicked]);
    expect(rangeOfKeys(chartProject(), chosen, [{ channel: 'wagon/translate.x', frame: 0 }])).toHaveLength(2);
  });
});

describe('a sound', () => {
  it('is known by the extension of its file', () => {
    expect(['hoot.WAV', 'a/b.mp3', 'c.ogg', 'd.glb'].map(soundType)).toEqual([
      'audio/wav',
      'audio/mpeg',
      'audio/ogg',
      null,
    ]);
  });

  it('is drawn by the loudest sample of each piece, over all channels', () => {
    const [left, right] = [new Float32Array(800), new Float32Array(800)];
    left[100] = -0.8;
    right[399] = 0.25;
    const { seconds, highest } = peaksOf([left, right], 0.01);
    expect(seconds).toBe(0.01);
    expect([...highest].map((value) => Math.round(value * 100) / 100)).toEqual([0.8, 0]);
    expect(peaksOf([left, right], 0.02).highest[1]).toBeCloseTo(0.25, 6);
  });
});
