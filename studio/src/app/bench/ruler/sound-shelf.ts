import { DestroyRef, effect, Injectable, inject, signal, untracked } from '@angular/core';
import { addSound, namedUri, sha256OfLarge, type Asset, type Project, type Sound } from '@kaizen/core';
import { soundType } from '../../open/files';
import { Assets } from '../../state/assets';
import { Studio } from '../../state/studio';
import { Notices } from '../../ui/notices';
import { Stage } from '../stage/stage';

/** A sound as it is drawn: the loudest sample, 0 to 1, of each of some equal pieces of its length. */
export interface Peaks {
  readonly seconds: number;
  readonly highest: Float32Array;
}

const PIECES_A_SECOND = 200;
/** Playing and sound may be apart by so much, in seconds, before the sound starts anew. */
const MOST_APART = 0.08;

/** The loudest sample of each piece of a sound, over all its channels. */
export function peaksOf(channels: readonly Float32Array[], seconds: number): Peaks {
  const highest = new Float32Array(Math.max(1, Math.ceil(seconds * PIECES_A_SECOND)));
  for (const samples of channels) {
    for (let i = 0; i < samples.length; i++) {
      const piece = Math.min(highest.length - 1, Math.floor((i / samples.length) * highest.length));
      const loud = Math.abs(samples[i]!);
      if (loud > highest[piece]!) highest[piece] = loud;
    }
  }
  return { seconds, highest };
}

/** Sounds of the project: taken in, decoded by the browser, drawn, and played in step with the shot. */
@Injectable({ providedIn: 'root' })
export class SoundShelf {
  private readonly studio = inject(Studio);
  private readonly assets = inject(Assets);
  private readonly stage = inject(Stage);
  private readonly notices = inject(Notices);
  private context: AudioContext | null = null;
  private readonly decoded = new Map<string, { readonly buffer: AudioBuffer; readonly peaks: Peaks }>();
  private readonly asked = new Set<string>();
  /** Counts what has been decoded, for what draws it. */
  readonly arrived = signal(0);
  private running: { readonly source: AudioBufferSourceNode; readonly sound: Sound }[] = [];
  private startedAt = { time: 0, frame: 0, speed: 1 };

  constructor() {
    effect(() => this.follow());
    inject(DestroyRef).onDestroy(() => this.silence());
  }

  /** Takes a sound file into the project, at the playhead; one sentence where the browser can't decode it. */
  async take(name: string, bytes: Uint8Array): Promise<void> {
    const type = soundType(name)!;
    const sha256 = await sha256OfLarge(bytes);
    try {
      await this.decode(sha256, bytes);
    } catch {
      this.notices.warn(
        `${name}: this browser can’t decode it as sound; a WAV always works. Nothing was changed.`,
      );
      return;
    }
    const asset: Asset = {
      id: `sound-${sha256.slice(0, 12)}`,
      name,
      type,
      sha256,
      uri: namedUri(sha256),
    };
    const sound: Sound = {
      id: crypto.randomUUID(),
      asset: asset.id,
      start: this.stage.frame(),
      gain: 1,
      muted: false,
    };
    this.assets.add(new Map([[sha256, bytes]]));
    this.studio.edit(`Add the sound ${name}`, (project) => addSound(project, asset, sound));
    this.studio.set({ sheet: 'ruler' });
    this.notices.tell(`${name} plays from f ${this.stage.frame()}; drag it in the strip under the ruler`);
  }

  /** What to draw for a sound; null until it is decoded. */
  peaks(project: Project, sound: Sound): Peaks | null {
    const asset = project.assets.find(({ id }) => id === sound.asset);
    if (!asset) return null;
    const known = this.decoded.get(asset.sha256);
    if (known) return known.peaks;
    const bytes = this.asked.has(asset.sha256) ? null : this.assets.bytesOf(asset);
    if (bytes)
      void this.decode(asset.sha256, bytes).catch(() =>
        this.notices.warn(`${asset.name}: this browser can’t decode it as sound; it stays in the project`),
      );
    return null;
  }

  private async decode(sha256: string, bytes: Uint8Array): Promise<void> {
    this.asked.add(sha256);
    this.context ??= new AudioContext();
    const buffer = await this.context.decodeAudioData(bytes.slice().buffer);
    const channels = Array.from({ length: buffer.numberOfChannels }, (_, i) => buffer.getChannelData(i));
    this.decoded.set(sha256, { buffer, peaks: peaksOf(channels, buffer.duration) });
    this.arrived.update((count) => count + 1);
  }

  /** Starts and stops sounds as playing does; starts them anew where the shot went round or was retimed. */
  private follow(): void {
    const playing = this.stage.playing();
    const frame = this.stage.frame();
    const project = this.stage.shown();
    this.arrived();
    untracked(() => {
      const { playSpeed, playEveryFrame } = this.studio.bench();
      if (!playing || !project || project.sounds.length === 0 || playEveryFrame) {
        this.silence();
        return;
      }
      const rate = (project.rate.frames / project.rate.per) * playSpeed;
      const due = this.startedAt.frame + ((this.context?.currentTime ?? 0) - this.startedAt.time) * rate;
      const inStep = Math.abs(due - frame) <= Math.max(1.5, MOST_APART * rate);
      if (this.running.length > 0 && inStep && this.startedAt.speed === playSpeed) return;
      this.silence();
      this.start(project, frame, playSpeed, rate);
    });
  }

  private start(project: Project, frame: number, speed: number, rate: number): void {
    const context = (this.context ??= new AudioContext());
    void context.resume();
    this.startedAt = { time: context.currentTime, frame, speed };
    for (const sound of project.sounds) {
      const asset = project.assets.find(({ id }) => id === sound.asset);
      const known = asset && this.decoded.get(asset.sha256);
      if (!known || sound.muted) continue;
      const source = new AudioBufferSourceNode(context, { buffer: known.buffer, playbackRate: speed });
      source.connect(new GainNode(context, { gain: sound.gain })).connect(context.destination);
      const late = (frame - sound.start) / rate;
      if (late * speed >= known.buffer.duration) continue;
      source.start(context.currentTime + Math.max(0, -late), Math.max(0, late * speed));
      this.running.push({ source, sound });
    }
  }

  private silence(): void {
    for (const { source } of this.running) source.stop();
    this.running = [];
  }
}
