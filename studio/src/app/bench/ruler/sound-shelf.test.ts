import '@angular/compiler';
import { sha256Hex } from '@kaizen/core';
import { DestroyRef, ɵChangeDetectionScheduler, ɵEffectScheduler } from '@angular/core';
import { fakes } from '../../testing/fake-studio';
import { chartProject } from '../../testing/chart-project';
import { SoundShelf } from './sound-shelf';

interface Started {
  readonly when: number;
  readonly offset: number;
  readonly rate: number;
  readonly gain: number;
  stopped: boolean;
}

/** A browser's sound, as far as the shelf uses it: decoding, a clock, and sources that remember how they were started. */
function fakeSound() {
  const started: Started[] = [];
  const clock = { now: 0 };
  class FakeContext {
    get currentTime() {
      return clock.now;
    }
    resume = () => Promise.resolve();
    destination = {};
    decodeAudioData = (bytes: ArrayBuffer) =>
      bytes.byteLength < 4
        ? Promise.reject(new Error('no sound'))
        : Promise.resolve({
            numberOfChannels: 1,
            duration: 2,
            getChannelData: () => new Float32Array(100).fill(0.5),
          });
  }
  class FakeGain {
    constructor(
      _: unknown,
      readonly options: { gain: number },
    ) {}
    connect = () => this;
  }
  class FakeSource {
    private gain = 0;
    private own: Started | null = null;
    constructor(
      _: unknown,
      private readonly options: { playbackRate: number },
    ) {}
    connect(node: FakeGain) {
      this.gain = node.options.gain;
      return node;
    }
    start(when: number, offset: number) {
      this.own = { when, offset, rate: this.options.playbackRate, gain: this.gain, stopped: false };
      started.push(this.own);
    }
    stop() {
      if (this.own) this.own.stopped = true;
    }
  }
  Object.assign(globalThis, {
    AudioContext: FakeContext,
    GainNode: FakeGain,
    AudioBufferSourceNode: FakeSource,
  });
  return { started, clock };
}

function setUp() {
  const sound = fakeSound();
  const effects: { run(): void }[] = [];
  const made = fakes(chartProject(), [
    { provide: SoundShelf, useClass: SoundShelf },
    { provide: DestroyRef, useValue: { onDestroy: () => () => undefined } },
    { provide: ɵChangeDetectionScheduler, useValue: { notify: () => undefined } },
    {
      provide: ɵEffectScheduler,
      useValue: {
        add: (effect: { run(): void }) => effects.push(effect),
        schedule: () => undefined,
        remove: () => undefined,
      },
    },
  ]);
  const shelf = made.injector.get(SoundShelf);
  const flush = () => effects.forEach((effect) => effect.run());
  return { ...made, ...sound, shelf, flush };
}

const WAV = new Uint8Array([1, 2, 3, 4, 5]);

describe('a sound on the ruler', () => {
  it('is taken in at the playhead with its file, and drawn once it is decoded', async () => {
    const { shelf, studio, stage } = setUp();
    stage.frame.set(12);
    await shelf.take('hoot.wav', WAV);
    const project = studio.project()!;
    expect(project.sounds).toMatchObject([{ start: 12, gain: 1, muted: false }]);
    expect(project.assets).toMatchObject([
      { name: 'hoot.wav', type: 'audio/wav', sha256: sha256Hex(WAV), uri: `sha256:${sha256Hex(WAV)}` },
    ]);
    expect(shelf.peaks(project, project.sounds[0]!)).toMatchObject({ seconds: 2 });
  });

  it('that can’t be decoded is told in one sentence and changes nothing', async () => {
    const { shelf, studio, notices } = setUp();
    const before = studio.project();
    await shelf.take('torn.ogg', new Uint8Array([1]));
    expect(notices.said).toBe(
      'torn.ogg: this browser can’t decode it as sound; a WAV always works. Nothing was changed.',
    );
    expect(studio.project()).toBe(before);
  });

  it('plays in step: from its place when playing begins, anew when the shot goes round, silent when it stops', async () => {
    const { shelf, stage, started, clock, flush } = setUp();
    stage.frame.set(12);
    await shelf.take('hoot.wav', WAV);
    stage.frame.set(0);
    stage.playing.set(true);
    flush();
    expect(started).toMatchObject([{ when: 0.5, offset: 0, rate: 1, gain: 1 }]);
    clock.now = 1;
    stage.frame.set(24);
    flush();
    expect(started).toHaveLength(1);
    clock.now = 1.04;
    stage.frame.set(18);
    flush();
    expect(started[0]!.stopped).toBe(true);
    expect(started[1]).toMatchObject({ when: 1.04, offset: 0.25 });
    stage.playing.set(false);
    flush();
    expect(started[1]!.stopped).toBe(true);
  });

  it('plays faster with the shot, and not at all frame by frame or past its end', async () => {
    const { shelf, studio, stage, started, flush } = setUp();
    stage.frame.set(0);
    await shelf.take('hoot.wav', WAV);
    studio.set({ playSpeed: 2 });
    stage.frame.set(24);
    stage.playing.set(true);
    flush();
    expect(started).toMatchObject([{ offset: 1, rate: 2 }]);
    stage.playing.set(false);
    flush();
    stage.frame.set(60);
    stage.playing.set(true);
    flush();
    expect(started).toHaveLength(1);
    studio.set({ playEveryFrame: true });
    stage.frame.set(0);
    flush();
    expect(started).toHaveLength(1);
  });
});
