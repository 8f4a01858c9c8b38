import { Injectable } from '@angular/core';
import { assetsWithin, bytesOfAsset, type Asset, type AssetBytes, type Project } from '@kaizen/core';

/** The bytes of the open project's models and sounds, which the project itself only names. */
@Injectable({ providedIn: 'root' })
export class Assets {
  private bytes = new Map<string, Uint8Array>();

  /** They only grow while a project is open, so that an undo finds what it brings back. */
  get beside(): Map<string, Uint8Array> {
    return this.bytes;
  }

  /** Has the bytes of a project that is opened in the place of those before; what is added to the map later counts too. */
  open(bytes: Map<string, Uint8Array>): void {
    this.bytes = bytes;
  }

  add(bytes: AssetBytes): void {
    for (const [hash, each] of bytes) this.bytes.set(hash, each);
  }

  bytesOf(asset: Asset): Uint8Array | null {
    return bytesOfAsset(asset, this.bytes);
  }

  /** The project as its file has it, with all bytes in it. */
  within(project: Project): Project {
    return assetsWithin(project, this.bytes);
  }
}
