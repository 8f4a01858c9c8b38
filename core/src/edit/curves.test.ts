import fc from 'fast-check';
import { partProperties, type Project } from '../project';
import { testProject } from '../../testing/project';
import { curveOf, curvesOfPart, deleteKeys, keyValues } from '.';

const mesh = (id: string) => ({
  id,
  kind: 'mesh',
  geometry: { shape: 'box', size: [1, 1, 1] },
  custom: [{ name: 'gate', value: 0 }],
});
const parts = [mesh('pan'), mesh('pan2'), { ...mesh('p'), parent: 'pan' }];
const properties = [
  'translate.x',
  'rotate.y',
  'squash',
  'visible',
  'material.roughness',
  'material.baseColor.g',
  'custom.gate',
];
const channels = parts.flatMap(({ id }) => properties.map((property) => `${id}/${property}`));
const keyed = (channel: string) => ({ channel, keys: [{ frame: 0, value: 1 }] });

/** What `curvesOfPart` stands for: each of the part's properties asked one by one. */
const oneByOne = (project: Project) =>
  project.parts.map((part) =>
    partProperties(part).flatMap(({ property }) => curveOf(project, `${part.id}/${property}`) ?? []),
  );

describe('the curves of a part', () => {
  it('are those of its channels in their order, however curves lie and whatever was edited', () => {
    const edit = fc.record({ channel: fc.constantFrom(...channels), away: fc.boolean() });
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.constantFrom(...channels)),
        fc.array(edit, { maxLength: 8 }),
        (first, edits) => {
          let project = testProject({ parts }, first.map(keyed));
          const check = () =>
            expect(project.parts.map((part) => curvesOfPart(project, part))).toEqual(oneByOne(project));
          check();
          for (const { channel, away } of edits) {
            const frame = 0;
            project = away
              ? deleteKeys(project, [{ channel, frame }])
              : keyValues(project, [{ channel, frame: 5, value: 2 }]);
            check();
          }
        },
      ),
    );
  });

  it('are none of a part without any', () => {
    const project = testProject({ parts }, [keyed('pan2/squash')]);
    expect(project.parts.map((part) => curvesOfPart(project, part).length)).toEqual([0, 1, 0]);
  });
});
