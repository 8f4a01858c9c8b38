import { wrap, type Remote } from 'comlink';
import type { MeshApi, MeshNumbers, PreparedMesh } from './mesh-api';
import { Spare } from './spare';

export const meshSpare = new Spare(
  () => new Worker(new URL('./mesh.worker', import.meta.url), { type: 'module' }),
);

/** So many numbers of meshes go to the worker at once: what comes back is laid into the page in one task. */
const NUMBERS_AT_ONCE = 300_000;

interface Waiting {
  readonly mesh: MeshNumbers;
  readonly done: (prepared: PreparedMesh) => void;
}

/** Meshes that wait for the worker, which does them one lot after the other. */
class MeshQueue {
  private readonly waiting: Waiting[] = [];
  private worker: Worker | null = null;
  private going = false;

  add(mesh: MeshNumbers): Promise<PreparedMesh> {
    return new Promise((done) => {
      this.waiting.push({ mesh, done });
      if (this.going) return;
      this.going = true;
      queueMicrotask(() => void this.goOn());
    });
  }

  private async goOn(): Promise<void> {
    const api = this.open();
    for (let lot = this.nextLot(); lot.length > 0; lot = this.nextLot()) {
      const meshes = lot.map(({ mesh }) => mesh);
      const prepared = await api.prepare(meshes).catch(() => preparedHere(meshes));
      lot.forEach(({ done }, i) => done(prepared[i]!));
    }
    this.worker?.terminate();
    this.worker = null;
    this.going = false;
  }

  private open(): { prepare: (meshes: readonly MeshNumbers[]) => Promise<readonly PreparedMesh[]> } {
    const worker = meshSpare.take();
    this.worker = worker;
    const remote: Remote<MeshApi> = wrap<MeshApi>(worker);
    const broken = new Promise<never>((_, reject) => {
      worker.onerror = () => reject(new Error('the worker of meshes stopped'));
    });
    broken.catch(() => undefined);
    return { prepare: (meshes) => Promise.race([remote.prepare(meshes), broken]) };
  }

  private nextLot(): readonly Waiting[] {
    let numbers = 0;
    let count = 0;
    while (count < this.waiting.length && numbers < NUMBERS_AT_ONCE)
      numbers += this.waiting[count++]!.mesh.positions.length;
    return this.waiting.splice(0, count);
  }
}

/** A worker that breaks is no reason to show a model without its edges: then the page finds them. */
async function preparedHere(meshes: readonly MeshNumbers[]): Promise<readonly PreparedMesh[]> {
  const { preparedMesh } = await import('./mesh-work');
  return meshes.map(preparedMesh);
}

const queue = new MeshQueue();

/** The edges and the tree of a mesh, made in a worker. */
export function prepareMesh(mesh: MeshNumbers): Promise<PreparedMesh> {
  return queue.add(mesh);
}
