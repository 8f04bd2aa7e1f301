import { inflateSync } from 'node:zlib';

const WOFF_HEADER = 44;
const WOFF_ENTRY = 20;
const SFNT_HEADER = 12;
const SFNT_ENTRY = 16;

/**
 * The font inside a WOFF 1.0 file as plain sfnt (TrueType or OpenType), its tables unpacked at once: a PDF that is set
 * with it does not unpack them anew, which takes most of the time of a page. Layout of both: W3C, WOFF File Format 1.0.
 */
export function sfntOf(woff: Buffer): Buffer {
  if (woff.toString('latin1', 0, 4) !== 'wOFF') throw new Error('not a WOFF 1.0 file');
  const count = woff.readUInt16BE(12);
  const head = Buffer.alloc(SFNT_HEADER + count * SFNT_ENTRY);
  const level = Math.floor(Math.log2(count));
  woff.copy(head, 0, 4, 8); // the flavour
  head.writeUInt16BE(count, 4);
  head.writeUInt16BE(2 ** level * 16, 6);
  head.writeUInt16BE(level, 8);
  head.writeUInt16BE(count * 16 - 2 ** level * 16, 10);
  const tables: Buffer[] = [];
  let offset = head.length;
  for (let i = 0; i < count; i += 1) {
    const from = WOFF_HEADER + i * WOFF_ENTRY;
    const [start, packed, length] = [4, 8, 12].map((at) => woff.readUInt32BE(from + at)) as [
      number,
      number,
      number,
    ];
    const data = woff.subarray(start, start + packed);
    const to = SFNT_HEADER + i * SFNT_ENTRY;
    woff.copy(head, to, from, from + 4); // the tag
    woff.copy(head, to + 4, from + 16, from + 20); // the checksum
    head.writeUInt32BE(offset, to + 8);
    head.writeUInt32BE(length, to + 12);
    const padded = Buffer.alloc(Math.ceil(length / 4) * 4);
    (packed < length ? inflateSync(data) : data).copy(padded);
    tables.push(padded);
    offset += padded.length;
  }
  return Buffer.concat([head, ...tables]);
}
