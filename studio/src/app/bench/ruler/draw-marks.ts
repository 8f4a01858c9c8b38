import type { Marker, MarkerKind, Project, Sound } from '@kaizen/core';
import { WORDS, type Ink } from '../plot/ink';
import { MARKER_ROW, RULER, SOUND_ROW, xOf, type Plot } from '../plot/plot';
import type { Peaks } from './sound-shelf';

/** The colour of a kind of marker; its sign says the same without colour. */
function markerColor(ink: Ink, kind: MarkerKind): string {
  return { note: ink.ink, hold: ink.tones.q, camera: ink.tones.z, contact: ink.tones.x, sound: ink.tones.y }[
    kind
  ];
}
const SIGNS: Readonly<Record<MarkerKind, string>> = {
  note: '',
  hold: '▬ ',
  camera: '◉ ',
  contact: '▾ ',
  sound: '♪ ',
};

/** Where a marker's flag is drawn, and how wide it is. */
export function markerBox(
  plot: Plot,
  marker: Marker,
  textWidth: number,
): { readonly left: number; readonly right: number } {
  const left = xOf(plot, marker.frame);
  const right = marker.end === null ? left + textWidth + 14 : Math.max(xOf(plot, marker.end), left + 10);
  return { left, right };
}

/** About how wide a marker's name is, where no canvas is at hand to measure it. */
export function nameWidth({ name, kind }: Marker): number {
  return (SIGNS[kind].length + name.length) * 6.2;
}

/** Markers and notes under the ruler's numbers: a flag at a frame, a bar over a span. */
export function drawMarkers(
  pen: CanvasRenderingContext2D,
  plot: Plot,
  ink: Ink,
  project: Project,
  picked: string | null,
): void {
  if (project.markers.length === 0) return;
  pen.fillStyle = ink.paper;
  pen.fillRect(0, RULER, plot.width, MARKER_ROW);
  pen.font = WORDS;
  pen.textAlign = 'left';
  pen.textBaseline = 'middle';
  for (const marker of project.markers) {
    const { left, right } = markerBox(plot, marker, nameWidth(marker));
    if (right < 0 || left > plot.width) continue;
    const color = markerColor(ink, marker.kind);
    pen.fillStyle = marker.id === picked ? ink.selectGround : ink.sheet;
    pen.fillRect(left, RULER + 3, right - left, MARKER_ROW - 6);
    pen.strokeStyle = color;
    pen.lineWidth = 1;
    pen.strokeRect(Math.round(left) + 0.5, RULER + 3.5, Math.round(right - left), MARKER_ROW - 7);
    pen.fillStyle = color;
    pen.fillRect(left, RULER + 1, 2, MARKER_ROW - 2);
    if (marker.end !== null) pen.fillRect(right - 1, RULER + 1, 2, MARKER_ROW - 2);
    pen.save();
    pen.beginPath();
    pen.rect(left + 3, RULER, Math.max(0, right - left - 5), MARKER_ROW);
    pen.clip();
    pen.fillText(SIGNS[marker.kind] + marker.name, Math.max(left, 0) + 7, RULER + MARKER_ROW / 2 + 0.5);
    pen.restore();
  }
  pen.fillStyle = ink.rule;
  pen.fillRect(0, RULER + MARKER_ROW - 1, plot.width, 1);
}

/** The waveforms of sounds, each from its frame on. */
export function drawSounds(
  pen: CanvasRenderingContext2D,
  plot: Plot,
  ink: Ink,
  project: Project,
  peaksOf: (sound: Sound) => Peaks | null,
): void {
  if (project.sounds.length === 0) return;
  const top = plot.head - SOUND_ROW;
  const middle = top + SOUND_ROW / 2;
  const framesPerSecond = project.rate.frames / project.rate.per;
  pen.fillStyle = ink.paper;
  pen.fillRect(0, top, plot.width, SOUND_ROW);
  for (const sound of project.sounds) {
    const peaks = peaksOf(sound);
    const seconds = peaks?.seconds ?? 1;
    const left = xOf(plot, sound.start);
    const right = xOf(plot, sound.start + seconds * framesPerSecond);
    pen.fillStyle = ink.sheet;
    pen.fillRect(left, top + 2, right - left, SOUND_ROW - 5);
    pen.fillStyle = sound.muted ? ink.rule : ink.tones.y;
    for (let x = Math.max(0, Math.floor(left)); peaks && x < Math.min(plot.width, right); x++) {
      const at = Math.floor(((x - left) / (right - left)) * peaks.highest.length);
      const height = Math.max(0.5, (peaks.highest[at] ?? 0) * (SOUND_ROW / 2 - 4) * Math.min(1, sound.gain));
      pen.fillRect(x, middle - height, 1, height * 2);
    }
    pen.fillRect(left, top + 2, 1, SOUND_ROW - 5);
    pen.fillRect(right - 1, top + 2, 1, SOUND_ROW - 5);
  }
  pen.fillStyle = ink.rule;
  pen.fillRect(0, plot.head - 1, plot.width, 1);
}
