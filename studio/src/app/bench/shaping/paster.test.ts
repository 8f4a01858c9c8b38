import '@angular/compiler';
import { copyKeys, setCurveFlag } from '@kaizen/core';
import { chartProject } from '../../testing/chart-project';
import { fakes } from '../../testing/fake-studio';
import { Paster } from './paster';

const RUN = 'wagon/translate.x';
const LIFT = 'hook/translate.y';
const AS_THEY_ARE = { times: 1, fromNow: false };

function setUp() {
  const made = fakes(chartProject());
  const paster = made.injector.get(Paster);
  const copy = (...frames: number[]) =>
    paster.copied.set(
      copyKeys(
        made.studio.project()!,
        frames.map((frame) => ({ channel: RUN, frame })),
      ),
    );
  return { ...made, paster, copy };
}

describe('pasting keys', () => {
  it('goes to the channel that is chosen now, at the playhead, and says where', () => {
    const { studio, stage, notices, paster, copy } = setUp();
    copy(0, 24);
    studio.pick({ channels: [LIFT] });
    stage.frame.set(60);
    paster.paste(AS_THEY_ARE);
    expect(studio.bench().keys).toEqual([
      { channel: LIFT, frame: 60 },
      { channel: LIFT, frame: 84 },
    ]);
    expect(notices.said).toBe('2 keys put on Hook, place Y, f 60 to 84');
  });

  it('says one key and one frame where there is one, and how many channels where there are several', () => {
    const { studio, stage, notices, paster, copy } = setUp();
    stage.frame.set(60);
    copy(24);
    paster.paste(AS_THEY_ARE);
    expect(notices.said).toBe('One key put on Wagon, place X, f 60');
    studio.pick({ channels: [RUN, LIFT] });
    paster.paste(AS_THEY_ARE);
    expect(notices.said).toBe('2 keys put on 2 channels, f 60');
  });

  it('onto a locked channel changes nothing, keeps what is chosen, and says so', () => {
    const { studio, notices, paster, copy } = setUp();
    copy(24);
    studio.edit('Lock', (project) => setCurveFlag(project, [RUN], 'locked', true));
    const before = studio.project();
    studio.pick({ keys: [{ channel: LIFT, frame: 12 }] });
    paster.paste(AS_THEY_ARE);
    expect(studio.project()).toBe(before);
    expect(studio.bench().keys).toEqual([{ channel: LIFT, frame: 12 }]);
    expect(notices.said).toContain('locked');
  });
});
