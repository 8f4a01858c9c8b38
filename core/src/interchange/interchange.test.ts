import fc from 'fast-check';
import { strToU8, unzipSync, zipSync } from 'fflate';
import { bytesOfUri, dataUri, fromBase64, sha256Hex, sha256OfLarge, toBase64 } from './asset-bytes';
import { readKaizenZip, writeKaizenZip } from './kaizen-zip';
import { encodeName, propertyUnit, channelKind, restValue } from '../project';
import { testProject } from '../../testing/project';

describe('bytes of assets', () => {
  it('are base64 as RFC 4648 §10 has it, both ways', () => {
    const vectors = [
      ['', ''],
      ['f', 'Zg=='],
      ['fo', 'Zm8='],
      ['foo', 'Zm9v'],
      ['foob', 'Zm9vYg=='],
      ['fooba', 'Zm9vYmE='],
      ['foobar', 'Zm9vYmFy'],
    ] as const;
    for (const [plain, coded] of vectors) {
      expect(toBase64(strToU8(plain))).toBe(coded);
      expect(fromBase64(coded)).toEqual(strToU8(plain));
    }
  });

  it('come back from a data URI, whatever they are', () => {
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 300 }), (bytes) => {
        expect(toBase64(bytes)).toBe(Buffer.from(bytes).toString('base64'));
        expect(bytesOfUri(dataUri('model/gltf-binary', bytes))).toEqual(bytes);
      }),
    );
    expect(toBase64(new Uint8Array(100_000))).toBe(Buffer.alloc(100_000).toString('base64'));
  });

  it('are refused where they are not base64', () => {
    expect(fromBase64('Zm9*')).toBeNull();
    expect(bytesOfUri('https://example.org/a.glb')).toBeNull();
  });

  it('have the SHA-256 of FIPS 180-4', () => {
    expect(sha256Hex(strToU8('abc'))).toBe(
      'ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad',
    );
    expect(sha256Hex(new Uint8Array(0))).toBe(
      'e3b0c44298fc1c149afbf4c8996fb92427ae41e4649b934ca495991b7852b855',
    );
  });

  it('have the same by the platform as without it', async () => {
    const large = Uint8Array.from({ length: 300_000 }, (_, i) => (i * 131) & 255);
    expect(await sha256OfLarge(large)).toBe(sha256Hex(large));
    const own = Object.getOwnPropertyDescriptor(globalThis, 'crypto')!;
    Object.defineProperty(globalThis, 'crypto', { value: undefined, configurable: true });
    try {
      expect(await sha256OfLarge(large)).toBe(sha256Hex(large));
    } finally {
      Object.defineProperty(globalThis, 'crypto', own);
    }
  });
});

describe('a .kaizen.zip', () => {
  const model = strToU8('a model');
  const asset = {
    id: 'm',
    name: 'm.glb',
    type: 'model/gltf-binary',
    sha256: sha256Hex(model),
    uri: dataUri('model/gltf-binary', model),
  };
  const project = testProject({ assets: [asset] });

  it('is the project with its models beside it, named by their hash, and comes back as it was', () => {
    const zip = writeKaizenZip(project);
    const files = unzipSync(zip);
    expect(Object.keys(files).sort()).toEqual([`assets/${asset.sha256}.glb`, 'project.kaizen.json']);
    expect(Buffer.from(files['project.kaizen.json']!).toString()).not.toContain('base64');
    expect(readKaizenZip(zip)).toEqual({ ok: true, value: project });
  });

  it('is the same bytes whenever it is written', () => {
    expect(writeKaizenZip(project)).toEqual(writeKaizenZip(project));
  });

  it('is refused with the place where something is wrong', () => {
    const files = unzipSync(writeKaizenZip(project));
    const name = `assets/${asset.sha256}.glb`;
    const problemOf = (changed: Record<string, Uint8Array>) => {
      const read = readKaizenZip(zipSync(changed));
      return read.ok ? null : `${read.problems[0]!.pointer}: ${read.problems[0]!.message}`;
    };
    expect(problemOf({ 'project.kaizen.json': files['project.kaizen.json']! })).toMatch(
      /^\/assets\/0\/uri: .*not in this zip/,
    );
    expect(problemOf({ ...files, [name]: strToU8('another') })).toMatch(/^\/assets\/0\/sha256: .*hash/);
    expect(problemOf({ [name]: model })).toMatch(/there is no project\.kaizen\.json/);
    const cut = readKaizenZip(writeKaizenZip(project).slice(0, 40));
    expect(cut).toMatchObject({
      ok: false,
      problems: [{ message: expect.stringContaining('can’t be unpacked'.replace('’', "'")) }],
    });
  });
});

describe('channels', () => {
  it('have names that survive every character, percent-encoded as a URI has it', () => {
    expect(encodeName('throttle_1.a-b c')).toBe('throttle_1.a-b c');
    expect(encodeName('50 %')).toBe('50 %25');
    expect(encodeName("(it's) ü/")).toBe('%28it%27s%29 %C3%BC%2F');
    expect(encodeName('a~b')).toBe('a%7Eb');
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme' }), (name) => {
        expect(decodeURIComponent(encodeName(name))).toBe(name);
        expect(encodeName(name)).toMatch(/^[A-Za-z0-9 ._%-]*$/);
      }),
    );
  });

  it('have a kind and a unit', () => {
    expect(
      ['translate.x', 'rotate.y', 'scale.z', 'squash', 'custom.throttle', 'light.intensity'].map(channelKind),
    ).toEqual(['place', 'turn', 'size', 'squash', 'custom', 'look']);
    expect(
      ['translate.x', 'rotate.y', 'scale.z', 'camera.focalLength', 'camera.focusDistance'].map((name) =>
        propertyUnit(name),
      ),
    ).toEqual(['m', '°', '', 'mm', 'm']);
    const [wagon] = testProject().parts;
    expect(restValue(wagon!, 'custom.throttle')).toBe(0.5);
    expect(restValue(wagon!, 'camera.fStop')).toBeNull();
  });
});
