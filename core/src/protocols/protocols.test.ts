import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { templateFieldsSchema } from '../contracts/index.ts';
import type { TemplateFields } from '../contracts/index.ts';
import { OCCASIONS } from '../domain/index.ts';
import { requestSchema } from '../schemas/index.ts';
import { item } from '../testing/cases.ts';
import { protocolRequest, readProtocolFile, withWords, writeProtocolFile } from './index.ts';
import { forAll } from '../testing/forAll.ts';

const words = item('own-words', { words: 'with the group', phase: 'wall', amount: 60 });
const protocolOf = (over: object = {}): TemplateFields =>
  templateFieldsSchema.parse({
    name: 'Descent day',
    occasion: 'before-competition',
    structure: 'short-minimum',
    request: { mode: 'prepare', minutes: 6, kit: ['wall'], space: 'lane', maxDrills: 5 },
    items: [item('cat-camel'), words],
    ...over,
  });
const own = requestSchema.parse({
  mode: 'restore',
  minutes: 12,
  kit: ['mini-band'],
  space: 'mat',
  maxDrills: 9,
});

describe('what a protocol asks for', () => {
  it('its minutes, with the kit and the room that the athlete has, its drills preferred', () => {
    expect(protocolRequest(protocolOf(), own, 'before-competition')).toMatchObject({
      mode: 'prepare',
      structure: 'short-minimum',
      minutes: 6,
      kit: ['mini-band'],
      space: 'mat',
      maxDrills: 5,
      prefer: ['cat-camel'],
      pins: [],
    });
  });
  it('what varies is turned round by its variables', () => {
    const variables = { minutes: 'athlete', place: 'as-written' };
    expect(protocolRequest(protocolOf({ variables }), own, 'before-competition')).toMatchObject({
      minutes: 12,
      kit: ['wall'],
      space: 'lane',
    });
  });
  it('for another occasion the mode is that one’s and the shape is chosen anew; one for no occasion keeps both', () => {
    expect(protocolRequest(protocolOf(), own, 'after')).toMatchObject({ mode: 'restore', structure: null });
    const any = protocolOf({ occasion: null });
    for (const occasion of OCCASIONS)
      expect(protocolRequest(any, own, occasion)).toMatchObject({
        mode: 'prepare',
        structure: 'short-minimum',
      });
  });
  it('own words stay below what was fitted, in no part', () => {
    const fitted = [item('bridge')];
    expect(withWords(fitted, [words, item('cat-camel')])).toEqual([...fitted, { ...words, phase: null }]);
  });
});

describe('a protocol file', () => {
  it('gives back what was written, whatever it says, without what the practice adds', () => {
    const text = fc.string({ maxLength: 60 }).map((s) => s.trim());
    forAll(
      fc.property(text, text, fc.constantFrom(null, ...OCCASIONS), (purpose, notFor, occasion) => {
        const protocol = protocolOf({ purpose, notFor, occasion });
        const kept = { ...protocol, id: 'x', version: 4, savedBy: 'K. Tarn' };
        expect(readProtocolFile(writeProtocolFile(kept))).toEqual({ protocol });
      }),
    );
  });
  it.each([
    ['{', '$'],
    ['[]', '$.format'],
    ['null', '$.format'],
    ['{"format":"yonder-ridge-case/1"}', '$.format'],
    ['{"format":"yonder-ridge-protocol/1"}', '$.protocol'],
  ])('%s is refused at %s', (text, path) => {
    const read = readProtocolFile(text);
    expect('faults' in read && read.faults.map((fault) => fault.path)).toEqual([path]);
  });
  it('says every fault of a protocol, each with its path', () => {
    const file = JSON.parse(writeProtocolFile(protocolOf()));
    const protocol = {
      ...file.protocol,
      name: '',
      items: [{ ...item('cat-camel'), sets: 0 }],
      occasion: 'birthday',
    };
    const read = readProtocolFile(JSON.stringify({ ...file, protocol }));
    const paths = 'faults' in read ? read.faults.map(({ path }) => path) : [];
    expect(paths).toEqual(
      expect.arrayContaining(['$.protocol.name', '$.protocol.items[0].sets', '$.protocol.occasion']),
    );
  });
});
