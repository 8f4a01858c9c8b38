import { strToU8, zipSync } from 'fflate';
import { readKaizenZip, unzipFiles } from './kaizen-zip';
import { crc32, unzip } from './zip';

const zip = (files: Record<string, Uint8Array>, level: 0 | 6 = 6) => zipSync(files, { level });
/** Changes a number in every entry of the central directory. */
function patched(
  bytes: Uint8Array,
  offset: number,
  change: (value: number) => number,
  size: 2 | 4,
): Uint8Array {
  const out = bytes.slice();
  const view = new DataView(out.buffer);
  for (let at = 0; at + 46 < out.length; at++) {
    if (view.getUint32(at, true) !== 0x02014b50) continue;
    if (size === 2) view.setUint16(at + offset, change(view.getUint16(at + offset, true)), true);
    else view.setUint32(at + offset, change(view.getUint32(at + offset, true)), true);
  }
  return out;
}
const said = (bytes: Uint8Array) => {
  const read = unzipFiles(bytes);
  return read.ok ? 'read' : read.problems[0]!.message;
};

describe('a zip', () => {
  it('gives its files back, deflated or stored, with names in UTF-8', () => {
    const files = {
      'a/jib.txt': strToU8('salt '.repeat(3000)),
      'Söle.bin': new Uint8Array([0, 255, 7]),
      'none.txt': new Uint8Array(0),
    };
    for (const level of [0, 6] as const) {
      const read = unzip(zip(files, level));
      expect(Object.fromEntries([...read].map(([name, bytes]) => [name, [...bytes]]))).toEqual(
        Object.fromEntries(Object.entries(files).map(([name, bytes]) => [name, [...bytes]])),
      );
    }
  });

  it('has check sums as ISO 3309 says', () => {
    expect(crc32(strToU8('123456789'))).toBe(0xcbf43926);
  });

  it('that lies about its sizes is stopped at what it says, not unpacked', () => {
    const bomb = zip({ 'bomb.bin': new Uint8Array(2_000_000) });
    expect(said(patched(bomb, 24, () => 1000, 4))).toMatch(/"bomb\.bin" unpacks to more than the 1000 bytes/);
    expect(said(patched(bomb, 24, () => 600 * 1024 * 1024, 4))).toMatch(/more than 512 MB/);
    expect(said(patched(bomb, 24, (size) => size + 1, 4))).toMatch(
      /has 2000000 bytes and should have 2000001/,
    );
  });

  it('whose bytes were changed, or are encrypted, is refused by name', () => {
    const good = zip({ 'project.kaizen.json': strToU8('{"format":"kaizen"}') }, 0);
    expect(said(patched(good, 16, (crc) => crc ^ 1, 4))).toMatch(
      /"project\.kaizen\.json" does not have its check sum/,
    );
    expect(said(patched(good, 8, (flags) => flags | 1, 2))).toMatch(
      /is encrypted; pack it without a password/,
    );
    expect(said(patched(good, 10, () => 93, 2))).toMatch(/packed by method 93/);
  });

  it('cut anywhere says so and never throws', () => {
    const good = zip({ 'project.kaizen.json': strToU8('{}'), 'b.txt': strToU8('b') });
    for (let length = 0; length < good.length; length++) {
      const read = readKaizenZip(good.slice(0, length));
      expect(read.ok ? 'read' : read.problems[0]!.message).toMatch(/can't be unpacked/);
    }
  });
});
