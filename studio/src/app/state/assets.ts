import { Injectable } from '@angular/core';
import {
  assetsWithin,
  bytesOfAsset,
  nameBytes,
  pictureWithin,
  type Asset,
  type AssetBytes,
  type Project,
} from '@kaizen/core';

/** The bytes of the open project's models, sounds and pictures, which the project itself only names. */
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

  /** A data URI as one that names its bytes, which lie beside the project from now on. */
  named(uri: string): string {
    const named = nameBytes(uri);
    if (!named) return uri;
    this.bytes.set(named.hash, named.bytes);
    return named.uri;
  }

  /** A picture to be shown, as a data URI; null where its bytes are nowhere. */
  picture(uri: string): string | null {
    return pictureWithin(uri, this.bytes);
  }

  bytesOf(asset: Asset): Uint8Array | null {
    return bytesOfAsset(asset, this.bytes);
  }

  /** The project as its file has it, with all bytes in it. */
  within(project: Project): Project {
    return assetsWithin(project, this.bytes);
  }
}
