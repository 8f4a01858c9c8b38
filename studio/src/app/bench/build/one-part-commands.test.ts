import '@angular/compiler';
import { changePart, cutsOf, newPart, newProject, type Part, type Project } from '@kaizen/core';
import { Opener } from '../../open/opener';
import { commandFakes } from '../../testing/command-fakes';
import { ContactCommands } from '../posing/contact-commands';
import { PartPicker } from '../stage/picker';
import { CameraCommands } from './camera-commands';
import { ChosenPartCommands } from './chosen-part-commands';
import { NumberHands } from './number-hands';
import { ShapeHands } from './shape-hands';

/** A camera at the origin and a crate of 1 m whose pivot is (3, 4, 12), 13 m away from it. */
function quay(): Project {
  const at = (part: Part, translate: readonly [number, number, number]): Part => ({
    ...part,
    rest: { ...part.rest, translate },
  });
  const camera = at({ ...newPart('camera', 'Boom camera'), id: 'camera' }, [0, 0, 0]);
  const crate = at({ ...newPart('box', 'Crate'), id: 'crate' }, [3, 4, 12]);
  return { ...newProject('quay', 'Quay'), parts: [camera, crate] };
}

function setUp() {
  const replaced: string[] = [];
  const opener = { replaceModel: (asset: string) => replaced.push(asset) };
  const made = commandFakes(
    quay(),
    [CameraCommands, ContactCommands, ChosenPartCommands],
    [{ provide: Opener, useValue: opener }],
  );
  const { injector, studio } = made;
  const part = (id: string) => studio.project()!.parts.find((each) => each.id === id)!;
  return { ...made, part, replaced, picker: injector.get(PartPicker) };
}

describe('a command about one camera', () => {
  it('is about the one that a button says, else about the chosen one, else about none', () => {
    const { studio, usable, part } = setUp();
    expect(usable('camera.look')).toBe(false);
    expect(usable('camera.look', part('camera'))).toBe(true);
    studio.pick({ parts: ['crate'] });
    expect(usable('camera.look')).toBe(false);
    studio.pick({ parts: ['camera'] });
    expect(usable('camera.look')).toBe(true);
  });

  it('looks through it, and no more', () => {
    const { registry, part } = setUp();
    const isOn = () => registry.find('camera.look')!.on!(part('camera'));
    expect(isOn()).toBe(false);
    registry.run('camera.look', part('camera'));
    expect(isOn()).toBe(true);
    registry.run('camera.look', part('camera'));
    expect(isOn()).toBe(false);
  });

  it('focuses it at the true distance of what is picked; the camera itself is no answer', () => {
    const { studio, registry, picker, notices } = setUp();
    studio.pick({ parts: ['camera'] });
    registry.run('camera.focus-on');
    picker.answer('camera');
    expect(picker.refusal()).toMatch(/itself is no answer/);
    picker.answer('crate');
    expect(studio.loose()).toMatchObject([{ channel: 'camera/camera.focusDistance', value: 13 }]);
    expect(notices.said).toBe('Focused at 13.000 m');
  });

  it('keeps it sharp on a part, which then says so, until it is let go', () => {
    const { studio, stage, registry, picker, usable, part } = setUp();
    registry.run('camera.keep-on', part('camera'));
    picker.answer('crate');
    expect(studio.project()!.drivers).toMatchObject([{ target: 'camera/camera.focusDistance', to: 'crate' }]);
    expect(stage.valueOf('camera/camera.focusDistance')).toBeCloseTo(13, 12);
    expect(usable('camera.focus-on', part('camera'))).toBe(false);
    registry.run('camera.let-go', part('camera'));
    expect(studio.project()!.drivers).toEqual([]);
    expect(usable('camera.let-go', part('camera'))).toBe(false);
  });
});

describe('cuts', () => {
  it('are set at the playhead to the chosen camera, gone to, and taken away', () => {
    const { studio, stage, registry, usable, part } = setUp();
    const frames = () => cutsOf(studio.project()!).map(({ frame }) => frame);
    expect(usable('cut.remove')).toBe(false);
    studio.edit('Another camera', (project) => ({
      ...project,
      parts: [...project.parts, { ...newPart('camera', 'Far camera'), id: 'far' }],
    }));
    stage.goTo(40);
    registry.run('camera.cut', part('far'));
    expect(frames()).toEqual([0, 40]);
    stage.goTo(60);
    registry.run('cut.go');
    expect(stage.frame()).toBe(40);
    registry.run('cut.remove');
    expect(frames()).toEqual([0]);
  });
});

describe('setting down', () => {
  it('brings the lowest point of the chosen part to the floor', () => {
    const { studio, registry } = setUp();
    studio.pick({ parts: ['crate'] });
    registry.run('part.set-down');
    expect(studio.loose()).toMatchObject([{ channel: 'crate/translate.y', value: 0.5, was: 4 }]);
  });

  it('is not to be had where nothing is chosen, or another tab edits', () => {
    const { studio, usable } = setUp();
    expect(usable('part.set-down')).toBe(false);
    studio.pick({ parts: ['crate'] });
    expect(usable('part.set-down')).toBe(true);
    studio.readOnly.set(true);
    expect(usable('part.set-down')).toBe(false);
  });
});

describe('a command about the chosen part', () => {
  it('is there for the kind of part that has what it is about', () => {
    const { studio, usable } = setUp();
    const ids = [
      'part.visible',
      'part.newer-model',
      'squash.on',
      'path.closed',
      'shape.new',
      'shape.all',
      'number.new',
    ];
    const there = () => ids.filter((id) => usable(id));
    expect(there()).toEqual([]);
    studio.pick({ parts: ['crate'] });
    expect(there()).toEqual(['part.visible', 'squash.on', 'shape.new', 'number.new']);
    studio.pick({ parts: ['camera'] });
    expect(there()).toEqual(['part.visible', 'number.new']);
    studio.readOnly.set(true);
    expect(there()).toEqual([]);
  });

  it('hides the part as a loose edit, and shows it again', () => {
    const { studio, registry } = setUp();
    const isOn = () => registry.find('part.visible')!.on!();
    studio.pick({ parts: ['crate'] });
    expect(isOn()).toBe(true);
    registry.run('part.visible');
    expect(studio.loose()).toMatchObject([{ channel: 'crate/visible', value: 0, was: 1 }]);
  });

  it('gives it a squash along y, and takes it away', () => {
    const { studio, registry, part } = setUp();
    studio.pick({ parts: ['crate'] });
    registry.run('squash.on');
    expect(part('crate').squash).toEqual({ axis: 'y', anchor: [0, 0, 0], frame: 'part' });
    registry.run('squash.on');
    expect(part('crate')).not.toHaveProperty('squash');
  });

  it('makes a target shape where the mesh is picked, soft over half its size, and opens it', () => {
    const { studio, registry, picker, injector, part } = setUp();
    studio.pick({ parts: ['crate'] });
    registry.run('shape.new');
    picker.answer('camera');
    expect(picker.refusal()).toMatch(/another part/);
    picker.answer('crate', [3, 4.5, 12]);
    expect(part('crate')).toMatchObject({
      morphs: [{ name: 'Shape', moves: [{ at: [0, 0.5, 0], radius: 0.25, by: [0, -0.075, 0], scale: 1 }] }],
    });
    expect(injector.get(ShapeHands).open()).toBe('Shape');
    expect(studio.bench().sheet).toBe('part');
    expect(studio.loose()).toMatchObject([{ channel: 'crate/morph.Shape', value: 1 }]);
  });

  it('asks for a newer model in the place of the one its mesh comes from', () => {
    const { studio, registry, usable, replaced } = setUp();
    studio.pick({ parts: ['crate'] });
    studio.edit('Another mesh', (project) =>
      changePart(project, 'crate', (part) =>
        part.kind === 'mesh' ? { ...part, geometry: { shape: 'asset', asset: 'skip', node: 'Skip' } } : part,
      ),
    );
    expect(['shape.new', 'part.newer-model'].filter((id) => usable(id))).toEqual(['part.newer-model']);
    registry.run('part.newer-model');
    expect(replaced).toEqual(['skip']);
  });

  it('gives it a number of its own, and opens that', () => {
    const { studio, registry, injector, part } = setUp();
    studio.pick({ parts: ['camera'] });
    registry.run('number.new');
    expect(part('camera').custom).toMatchObject([{ name: 'number', value: 0, min: 0, max: 1 }]);
    expect(injector.get(NumberHands).open()).toBe('number');
  });
});
