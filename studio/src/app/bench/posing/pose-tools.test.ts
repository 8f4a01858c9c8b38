import '@angular/compiler';
import { curveOf } from '@kaizen/core';
import { Assets } from '../../state/assets';
import { fakes } from '../../testing/fake-studio';
import { chartProject } from '../../testing/chart-project';
import { ViewControl } from '../stage/view-control';
import { PoseTools } from './pose-tools';

const RUN = 'wagon/translate.x';

function setUp() {
  const made = fakes(chartProject(), [
    { provide: ViewControl, useValue: { picture: () => 'data:image/jpeg;base64,' } },
  ]);
  const { studio } = made;
  const capture = (on: boolean) => studio.set({ capture: { ...studio.bench().capture, on } });
  const loose = () => studio.loose().map(({ channel, value }) => [channel, value]);
  const keysOf = (channel: string) =>
    curveOf(studio.project()!, channel)?.keys.map(({ frame, value }) => [frame, value]);
  const { injector } = made;
  return { ...made, tools: injector.get(PoseTools), assets: injector.get(Assets), capture, loose, keysOf };
}

describe('poses', () => {
  it('copied at one frame are pasted at another: to the tray, or as keys while Capture is on', () => {
    const { studio, stage, tools, capture, loose, keysOf } = setUp();
    studio.pick({ parts: ['wagon'] });
    stage.frame.set(24);
    tools.copy();
    stage.frame.set(36);
    tools.paste(false);
    expect(loose()).toEqual([
      [RUN, 2],
      ['hook/translate.y', 1],
    ]);
    capture(true);
    stage.frame.set(40);
    tools.paste(false);
    expect(keysOf(RUN)).toContainEqual([40, 2]);
    expect(keysOf('hook/translate.y')).toContainEqual([40, 1]);
  });

  it('mirrored change sides, and only the kinds that are wanted are pasted', () => {
    const { studio, stage, tools, loose, notices } = setUp();
    studio.pick({ parts: ['wagon'] });
    stage.frame.set(24);
    tools.copy();
    stage.frame.set(0);
    tools.paste(true);
    expect(loose()).toEqual([[RUN, -2]]);
    tools.kinds.set(['turn']);
    tools.paste(false);
    expect(notices.said).toBe('The parts stand like that already');
  });

  it('of another frame are brought to the playhead', () => {
    const { studio, stage, tools, loose } = setUp();
    tools.withChildren.set(false);
    studio.pick({ parts: ['wagon'] });
    stage.frame.set(0);
    tools.bring(48);
    expect(loose()).toEqual([[RUN, 4]]);
  });

  it('are kept on the shelf with a picture, renamed, used and taken off', () => {
    const { studio, stage, tools, loose, assets } = setUp();
    tools.keep();
    expect(studio.project()!.poses).toEqual([]);
    studio.pick({ parts: ['hook'] });
    stage.frame.set(40);
    tools.keep();
    const [pose] = studio.project()!.poses;
    expect(pose!.name).toBe('Pose 1');
    expect(assets.picture(pose!.picture!)).toBe('data:image/jpeg;base64,');
    expect(pose!.values['hook/translate.y']).toBe(3);
    tools.rename(pose!, 'Lifted');
    stage.frame.set(12);
    tools.use(studio.project()!.poses[0]!, false);
    expect(loose()).toEqual([['hook/translate.y', 3]]);
    tools.remove(pose!);
    expect(studio.project()!.poses).toEqual([]);
  });
});
