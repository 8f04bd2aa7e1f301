import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { eachOf } from '@yonder/core/testing/eachOf';
import { describe, expect, it } from 'vitest';
import { sfntOf } from './sfnt.ts';

const require = createRequire(import.meta.url);
const woff = readFileSync(
  require.resolve('@fontsource/bricolage-grotesque/files/bricolage-grotesque-latin-700-normal.woff'),
);

/** The sum of a table's 32-bit words, as the format wants it in the directory. */
function checksum(table: Buffer): number {
  let sum = 0;
  for (let i = 0; i < table.length; i += 4) sum = (sum + table.readUInt32BE(i)) >>> 0;
  return sum;
}

describe('a font unpacked', () => {
  it('has every table where its directory says, whole by its own checksum', () => {
    const font = sfntOf(woff);
    const count = font.readUInt16BE(4);
    expect(count).toBe(woff.readUInt16BE(12));
    const tags = eachOf(Array.from({ length: count }, (_, i) => 12 + i * 16)).map((at) => {
      const tag = font.toString('latin1', at, at + 4);
      const [offset, length] = [font.readUInt32BE(at + 8), font.readUInt32BE(at + 12)];
      const table = Buffer.from(font.subarray(offset, offset + Math.ceil(length / 4) * 4));
      if (tag === 'head') table.writeUInt32BE(0, 8); // what is summed of `head` leaves its own sum of the file out
      expect(checksum(table), tag).toBe(font.readUInt32BE(at + 4));
      return tag;
    });
    expect(tags).toEqual(expect.arrayContaining(['cmap', 'glyf', 'head', 'loca', 'name']));
  });

  it('is refused when it is none', () => {
    expect(() => sfntOf(Buffer.from('wOF2'))).toThrow('not a WOFF 1.0 file');
  });
});
