import type { MeshNumbers, PreparedMesh, WaitingMesh } from './mesh-api';
import { runInWorker } from './run-in-worker';

/** So many vertices of meshes go to the worker at once: what comes back is laid into the page in one task. */
const VERTICES_AT_ONCE = 100_000;

interface Waiting {
  readonly mesh: WaitingMesh;
  readonly done: (prepared: PreparedMesh) => void;
}

/** Meshes that wait for the worker, which does them one lot after the other. */
class MeshQueue {
  private readonly waiting: Waiting[] = [];
  private going = false;

  add(mesh: WaitingMesh): Promise<PreparedMesh> {
    return new Promise((done) => {
      this.waiting.push({ mesh, done });
      if (this.going) return;
      this.going = true;
      queueMicrotask(() => void this.goOn());
    });
  }

  private async goOn(): Promise<void> {
    // While a worker was ended, more may have come.
    while (this.waiting.length > 0) {
      const { result } = runInWorker((api) => this.doAll((meshes) => api.prepare(meshes)));
      await result.catch(() => this.doAll(preparedHere));
    }
    this.going = false;
  }

  /** A lot waits until it is done: where a worker breaks in its midst, it is still there. */
  private async doAll(
    prepare: (meshes: readonly MeshNumbers[]) => Promise<readonly PreparedMesh[]>,
  ): Promise<void> {
    for (let lot = this.nextLot(); lot.length > 0; lot = this.nextLot()) {
      const prepared = await prepare(lot.map(({ mesh }) => mesh.numbers()));
      this.waiting.splice(0, lot.length).forEach(({ done }, i) => done(prepared[i]!));
    }
  }

  private nextLot(): readonly Waiting[] {
    let vertices = 0;
    let count = 0;
    while (count < this.waiting.length && vertices < VERTICES_AT_ONCE)
      vertices += this.waiting[count++]!.mesh.vertices;
    return this.waiting.slice(0, count);
  }
}

/** A worker that breaks is no reason to show a model without its edges: then the page finds them. */
async function preparedHere(meshes: readonly MeshNumbers[]): Promise<readonly PreparedMesh[]> {
  const { preparedMesh } = await import('./mesh-work');
  return meshes.map(preparedMesh);
}

const queue = new MeshQueue();

/** The edges and the tree of a mesh, made in a worker. */
export function prepareMesh(mesh: WaitingMesh): Promise<PreparedMesh> {
  return queue.add(mesh);
}
