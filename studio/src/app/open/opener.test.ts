import '@angular/compiler';
import { Router } from '@angular/router';
import { strToU8 } from 'fflate';
import {
  newPart,
  newProject,
  exportGltf,
  ProjectJoiner,
  sha256Hex,
  writeGlb,
  writeKaizenZip,
  writeProject,
  type AssetBytes,
  type Project,
  type ProjectBeside,
} from '@kaizen/core';
import { chartProject } from '../testing/chart-project';
import { OpenBench } from './bench-hands';
import { Keeper } from '../storage/keeper';
import { Assets } from '../state/assets';
import { fakes } from '../testing/fake-studio';
import { readWork } from '../workers/read-work';
import type { ModelBytes } from '../workers/read-api';
import { Opener } from './opener';
import { Reader } from './reader';

/** The reader without its worker: the same work, done here. */
const hereReader: Pick<Reader, 'project' | 'model'> = {
  project: (_name, bytes, kind, arrived) => {
    const joiner = new ProjectJoiner();
    const read = readWork.project(
      bytes,
      kind,
      (piece, isLast) => {
        joiner.take(piece);
        if (isLast) arrived(joiner.project);
      },
      () => undefined,
    );
    return Promise.resolve(
      read.ok ? { ok: true, value: { project: joiner.project, bytes: read.bytes } } : read,
    );
  },
  model: (model: ModelBytes) => Promise.resolve(readWork.model(model, () => undefined)),
};

/** A model that holds no project of Kaizen's: as another program would write it. */
function foreignModel(): Uint8Array {
  const written = exportGltf({ ...newProject('m', 'M'), parts: [newPart('box', 'Crate')] });
  if (!written.ok) throw new Error('not written');
  const { json, bin } = written.value;
  return writeGlb({ json: { ...json, asset: { version: '2.0' } }, bin });
}

function setUp(url: string, known = false) {
  const opened: { project: Project; bytes: AssetBytes; bench: object }[] = [];
  const went: unknown[] = [];
  const keeper = {
    has: () => Promise.resolve(known),
    names: () => Promise.resolve(['Untitled']),
    keepNew: ({ project, bytes }: ProjectBeside, bench: object) => {
      opened.push({ project, bytes, bench });
      return Promise.resolve(project.id);
    },
  };
  const router = { url, navigate: (to: unknown) => Promise.resolve(void went.push(to)) };
  const made = fakes(chartProject(), [
    { provide: Keeper, useValue: keeper },
    { provide: Router, useValue: router },
    { provide: Reader, useValue: hereReader },
    { provide: OpenBench, useClass: OpenBench },
    { provide: Opener, useClass: Opener },
  ]);
  return { ...made, opened, went, opener: made.injector.get(Opener), assets: made.injector.get(Assets) };
}

describe('opening what the user brings', () => {
  it('a project file becomes a kept project, with quiet groups closed, and the Bench opens', async () => {
    const { opener, opened, went } = setUp('/projects');
    await opener.open([{ name: 'p.kaizen.json', bytes: strToU8(writeProject(chartProject())) }]);
    expect(opened).toEqual([{ project: chartProject(), bytes: new Map(), bench: { collapsed: ['shed'] } }]);
    expect(went).toEqual([['/bench', 'p']]);
  });

  it('one that is kept here already becomes a copy of its own, and that is said', async () => {
    const { opener, opened, notices } = setUp('/projects', true);
    await opener.open([{ name: 'p.kaizen.zip', bytes: writeKaizenZip(chartProject()) }]);
    expect(opened[0]!.project.id).not.toBe('p');
    expect({ ...opened[0]!.project, id: 'p' }).toEqual(chartProject());
    expect(notices.said).toMatch(/kept here already/);
  });

  it('a model becomes parts of the project on the Bench, picked', async () => {
    const { opener, studio, notices, opened, assets } = setUp('/bench/p');
    await opener.open([{ name: 'crate.glb', bytes: foreignModel() }]);
    expect(opened).toEqual([]);
    expect(studio.labels).toEqual(['Bring crate.glb']);
    expect(studio.project()!.parts.at(-1)).toMatchObject({ kind: 'mesh', geometry: { shape: 'asset' } });
    const [asset] = studio.project()!.assets;
    expect(asset!.uri).toBe(`sha256:${asset!.sha256}`);
    expect(sha256Hex(assets.bytesOf(asset!)!)).toBe(asset!.sha256);
    expect(studio.bench().parts).toEqual([studio.project()!.parts.at(-1)!.id]);
    expect(notices.said).toMatch(/^crate\.glb: 1 part brought/);
  });

  it('elsewhere, or while another tab edits, a model becomes a project of its own', async () => {
    for (const readOnly of [false, true]) {
      const { opener, studio, opened } = setUp(readOnly ? '/bench/p' : '/projects');
      studio.readOnly.set(readOnly);
      await opener.open([{ name: 'crate.glb', bytes: foreignModel() }]);
      expect(studio.labels).toEqual([]);
      expect(opened[0]!.project.parts).toHaveLength(1);
      expect([...opened[0]!.bytes.keys()]).toEqual([opened[0]!.project.assets[0]!.sha256]);
    }
  });

  it.each([
    ['broken.kaizen.json', strToU8('{"format": "kaizen"'), /^broken\.kaizen\.json: .*Nothing was changed\.$/],
    [
      'wrong.kaizen.json',
      strToU8('{"format": "kaizen", "version": 1}'),
      /^wrong\.kaizen\.json: .*Nothing was changed\.$/,
    ],
    ['cut.glb', foreignModel().slice(0, 200), /^cut\.glb.*Nothing was changed\.$/],
    ['notes.txt', strToU8('hello'), /^notes\.txt: Kaizen opens .*Nothing was changed\.$/],
  ])('%s says what is wrong, and touches nothing', async (name, bytes, sentence) => {
    const { opener, studio, opened, notices } = setUp('/bench/p');
    await opener.open([{ name, bytes }]);
    expect(notices.said).toMatch(sentence);
    expect(opened).toEqual([]);
    expect(studio.labels).toEqual([]);
  });

  it('nothing chosen is nothing done', async () => {
    const { opener, notices } = setUp('/bench/p');
    await opener.open([]);
    expect(notices.said).toBe('');
  });
});
