import { Injectable, inject, signal } from '@angular/core';
import { Router } from '@angular/router';
import {
  assetsBeside,
  bringInto,
  type BroughtInto,
  newProject,
  readProject,
  replaceModel,
  type ModelReplaced,
  type AssetBytes,
  type Brought,
  type Problem,
  type Project,
  type ProjectBeside,
  extensionsThat,
} from '@kaizen/core';
import { Assets } from '../state/assets';
import { Studio } from '../state/studio';
import { Keeper } from '../storage/keeper';
import { Notices } from '../ui/notices';
import { OpenBench } from './bench-hands';
import { quietGroups } from './quiet-groups';
import { Reader } from './reader';
import { sampleText } from './samples';
import { chooseFiles, modelAmong, soundType, unpacked, type NamedBytes } from './files';

/** What the file chooser offers. */
const OPENABLE = '.json,.zip,.glb,.gltf,.bin,.png,.jpg,.jpeg,.webp,.wav,.mp3,.ogg';

const NOTHING_CAME: Pick<BroughtInto, 'added' | 'clips' | 'plays'> = { added: [], clips: [], plays: false };

/** What is found out about a project that is brought: whether it is kept here, and which of its groups are quiet. */
interface LookedAt {
  readonly known: Promise<boolean>;
  readonly quiet: readonly string[];
}

/** Opens what the user brings: project files become kept projects, models become parts. A broken file touches nothing. */
@Injectable({ providedIn: 'root' })
export class Opener {
  private readonly studio = inject(Studio);
  private readonly assets = inject(Assets);
  private readonly keeper = inject(Keeper);
  private readonly notices = inject(Notices);
  private readonly router = inject(Router);
  private readonly reader = inject(Reader);
  private readonly bench = inject(OpenBench);
  /** Whether a project's file is read now that a Bench will show. */
  readonly reads = signal(false);

  async choose(): Promise<void> {
    await this.open(await chooseFiles(OPENABLE));
  }

  /** Opens files that were chosen or dropped together. */
  async open(files: readonly NamedBytes[]): Promise<void> {
    if (files.length === 0) return;
    const projectFile = files.find(({ name }) => /\.(json|kaizen\.zip)$/i.test(name));
    const sounds = files.filter(({ name }) => soundType(name) !== null);
    if (projectFile) await this.openProject(projectFile);
    else if (sounds.length > 0) await this.takeSounds(sounds);
    else await this.openModel(files);
  }

  private async takeSounds(sounds: readonly NamedBytes[]): Promise<void> {
    if (!this.onBench()) {
      this.notices.warn('Open a project first, then drop the sound on its Bench. Nothing was changed.');
      return;
    }
    for (const { name, bytes } of sounds) await this.bench.hands?.takeSound(name, bytes);
  }

  /** Whether a project stands on the Bench that this tab may change. */
  private onBench(): boolean {
    return this.router.url.startsWith('/bench') && this.studio.project() !== null && !this.studio.readOnly();
  }

  private async openProject(file: NamedBytes): Promise<void> {
    this.reads.set(true);
    try {
      await this.readAndStart(file);
    } finally {
      this.reads.set(false);
    }
  }

  private async readAndStart({ name, bytes }: NamedBytes): Promise<void> {
    let ahead = null as LookedAt | null;
    const arrived = (project: Project) => (ahead = this.lookAt(project));
    const read = await this.reader.project(name, bytes, /\.zip$/i.test(name) ? 'zip' : 'json', arrived);
    if (!read) return;
    if (!read.ok) {
      this.notices.warn(`${name}: ${said(read.problems)} Nothing was changed.`);
      return;
    }
    const { project } = read.value;
    const { known, quiet } = ahead ?? this.lookAt(project);
    const isKnown = await known;
    await this.start(
      isKnown ? { ...read.value, project: { ...project, id: crypto.randomUUID() } } : read.value,
      quiet,
    );
    if (isKnown) this.notices.tell(`${name} is kept here already: it was opened as another copy`);
  }

  private lookAt(project: Project): LookedAt {
    const known = this.keeper.has(project.id);
    // Storage that can't be read is told by whoever waits for the answer.
    known.catch(() => undefined);
    return { known, quiet: quietGroups(project) };
  }

  /** Asks for a file, and puts the model in it in the place of one of the open project. */
  async replaceModel(asset: string): Promise<void> {
    const read = await this.readModel(await chooseFiles(OPENABLE));
    if (!read || this.studio.readOnly()) return;
    this.assets.add(read.bytes);
    let made: ModelReplaced | null = null;
    this.studio.edit(
      `Newer ${read.name}`,
      (project) => (made = replaceModel(project, asset, read.brought.project)).project,
    );
    this.notices.tell(replacedWords(read.name, made));
  }

  private async openModel(files: readonly NamedBytes[]): Promise<void> {
    const read = await this.readModel(files);
    if (read) await this.place(read.name, read.brought, read.bytes);
  }

  /** Reads the model among some files; says what is wrong where it can’t be read, and gives null. */
  private async readModel(
    files: readonly NamedBytes[],
  ): Promise<{ readonly name: string; readonly brought: Brought; readonly bytes: AssetBytes } | null> {
    if (files.length === 0) return null;
    const names = files.map(({ name }) => name).join(', ');
    const all = unpacked(files);
    if (!all.ok) {
      this.notices.warn(`${names}: ${said(all.problems)} Nothing was changed.`);
      return null;
    }
    const model = modelAmong(all.value);
    if (!model) {
      this.notices.warn(
        `${names}: Kaizen opens ${extensionsThat('read').join(', ')}, a .gltf with its files. Nothing was changed.`,
      );
      return null;
    }
    const read = await this.reader.model(model);
    if (!read) return null;
    if (!read.ok) {
      this.notices.warn(`${model.name}: ${said(read.problems)} Nothing was changed.`);
      return null;
    }
    return { name: model.name, brought: read.brought, bytes: read.bytes };
  }

  /** Puts a model's parts into the project on the Bench, or into a new one. */
  private async place(name: string, brought: Brought, bytes: AssetBytes): Promise<void> {
    const count = brought.project.parts.length;
    const report = [`${name}: ${count} ${count === 1 ? 'part' : 'parts'} brought`, ...brought.report];
    if (this.onBench()) {
      this.assets.add(bytes);
      let into: BroughtInto | null = null;
      this.studio.edit(`Bring ${name}`, (project) => (into = bringInto(project, brought.project)).project);
      const { added, clips, plays } = into ?? NOTHING_CAME;
      this.studio.pick({ parts: added.slice(0, 1), channels: [], keys: [], handles: [] });
      this.bench.hands?.bringIntoSight(added);
      if (clips.length > 0)
        report.push(
          `${plays ? 'plays' : 'its motions wait'} as ${clips.map((clip) => `“${clip}”`).join(', ')}: the sheet Shot chooses the clip`,
        );
    } else {
      await this.start({ project: { ...brought.project, id: crypto.randomUUID() }, bytes });
    }
    this.notices.tell(report.map(begun).join('. '));
  }

  /** A sample, as a copy of its own. */
  async openSample(id: string): Promise<void> {
    const read = await sampleText(id).then(readProject, () => null);
    if (!read?.ok) {
      this.notices.warn(`The sample ${id} could not be read; start Kaizen again with npm start`);
      return;
    }
    await this.start(assetsBeside({ ...read.value, id: crypto.randomUUID() }));
  }

  async openNew(): Promise<void> {
    await this.start(assetsBeside(newProject(crypto.randomUUID(), await this.freshName())));
  }

  /** A name that no kept project has: Untitled, Untitled 2, … */
  private async freshName(): Promise<string> {
    const taken = new Set(await this.keeper.names());
    let name = 'Untitled';
    for (let n = 2; taken.has(name); n++) name = `Untitled ${n}`;
    return name;
  }

  private async start(opened: ProjectBeside, collapsed = quietGroups(opened.project)): Promise<void> {
    const id = await this.keeper.keepNew(opened, { collapsed });
    if (id !== null) await this.router.navigate(['/bench', id]);
  }
}

function said(problems: readonly Problem[]): string {
  const [first] = problems;
  if (!first) return 'it can’t be read.';
  const more = problems.length > 1 ? ` (and ${problems.length - 1} more)` : '';
  return `${first.pointer ? `at ${first.pointer}, ` : ''}${first.message}${more}.`;
}

/** What a newer model came to, in words. */
function replacedWords(name: string, made: ModelReplaced | null): string {
  if (!made || made.replaced === 0)
    return `${name} has no node by the name of one that is there: nothing was replaced`;
  const told = [
    `${name}: ${made.replaced} ${made.replaced === 1 ? 'mesh' : 'meshes'} replaced, keys and places stay`,
  ];
  if (made.added.length > 0) told.push(`new: ${made.added.join(', ')}`);
  if (made.missing.length > 0) told.push(`not in it any more, kept as before: ${made.missing.join(', ')}`);
  if (made.lostShapes.length > 0) told.push(`shapes gone with their keys: ${made.lostShapes.join('; ')}`);
  return told.join('. ');
}

/** A sentence with a capital, but for what is written small as a file’s name. */
function begun(sentence: string, i: number): string {
  return i === 0 ? sentence : sentence.charAt(0).toUpperCase() + sentence.slice(1);
}
