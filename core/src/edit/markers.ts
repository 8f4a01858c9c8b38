import type { Asset, Marker, Project, Sound } from '../project';

/** Puts a marker on the ruler, or gives the one of its id other fields. Markers stand in order of time. */
export function putMarker(project: Project, marker: Marker): Project {
  const others = project.markers.filter(({ id }) => id !== marker.id);
  const markers = [...others, marker].sort((a, b) => a.frame - b.frame || (a.id < b.id ? -1 : 1));
  return { ...project, markers };
}

export function removeMarker(project: Project, id: string): Project {
  const markers = project.markers.filter((marker) => marker.id !== id);
  return markers.length === project.markers.length ? project : { ...project, markers };
}

/** Puts a sound on the ruler with its file among the assets; the same file is kept once. */
export function addSound(project: Project, asset: Asset, sound: Sound): Project {
  const known = project.assets.find(({ sha256 }) => sha256 === asset.sha256);
  return {
    ...project,
    assets: known ? project.assets : [...project.assets, asset],
    sounds: [...project.sounds, { ...sound, asset: known?.id ?? asset.id }],
  };
}

export function changeSound(project: Project, id: string, change: Partial<Sound>): Project {
  return {
    ...project,
    sounds: project.sounds.map((sound) => (sound.id === id ? { ...sound, ...change } : sound)),
  };
}

/** Takes a sound off the ruler, and its file where nothing else uses it. */
export function removeSound(project: Project, id: string): Project {
  const gone = project.sounds.find((sound) => sound.id === id);
  if (!gone) return project;
  const sounds = project.sounds.filter((sound) => sound.id !== id);
  const used = sounds.some(({ asset }) => asset === gone.asset);
  const assets = used ? project.assets : project.assets.filter((asset) => asset.id !== gone.asset);
  return { ...project, sounds, assets };
}

/** What of the ruler goes along with an edit of time. */
export interface RulerMoves {
  readonly range: boolean;
  readonly markers: boolean;
  readonly sounds: boolean;
}

/** Moves what stands on the ruler by where frames go. A marker inside a span that is cut out goes to its start. */
export function moveRuler(project: Project, map: (frame: number) => number, moves: RulerMoves): Project {
  const { range } = project;
  const end = map(range.end);
  const start = map(range.start);
  const ranged =
    moves.range && end > start && (end !== range.end || start !== range.start)
      ? { ...project, range: { ...range, start, end } }
      : project;
  const marked = moves.markers
    ? { ...ranged, markers: mapList(ranged.markers, (each) => moved(each, map)) }
    : ranged;
  return moves.sounds
    ? {
        ...marked,
        sounds: mapList(marked.sounds, (each) =>
          map(each.start) === each.start ? each : { ...each, start: map(each.start) },
        ),
      }
    : marked;
}

function moved(marker: Marker, map: (frame: number) => number): Marker {
  const frame = map(marker.frame);
  const end = marker.end === null ? null : Math.max(frame, map(marker.end));
  return frame === marker.frame && end === marker.end ? marker : { ...marker, frame, end };
}

/** Maps a list; the very same list where nothing changed. */
function mapList<T>(list: readonly T[], change: (item: T) => T): readonly T[] {
  const next = list.map(change);
  return next.every((item, i) => item === list[i]) ? list : next;
}
