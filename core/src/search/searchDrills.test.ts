import { kitText } from '../reference/index.ts';
import { bundledReference } from '../reference/bundled.ts';
import { describe, expect, it } from 'vitest';
import { searchDrills } from './index.ts';
import { asNamed, stem } from './said.ts';
import { eachOf } from '../testing/eachOf.ts';

const found = (text: string) => [...(searchDrills(bundledReference, text) ?? [])].sort((a, b) => b[1] - a[1]);
const namesOf = (text: string) => found(text).map(([id]) => bundledReference.drills.get(id)?.name ?? '');
const servesOf = (text: string) =>
  found(text)
    .slice(0, 10)
    .map(([id]) => bundledReference.drills.get(id)?.serves.map((s) => s.restriction) ?? []);

describe('searching the library', () => {
  it.each(['stiff ankle', 'ankle stiffness', 'dorsiflexion'])('"%s" finds what frees the ankle', (text) => {
    expect(found(text).length).toBeGreaterThan(3);
    const hits = servesOf(text).filter((list) => list.includes('ankle-dorsiflexion-limit'));
    expect(hits.length).toBeGreaterThanOrEqual(4);
  });
  it('"calf band" finds calf work with a band', () => {
    const [first] = found('calf band');
    const drill = bundledReference.drills.get(first?.[0] ?? '');
    expect(drill && kitText(drill)).toContain('band');
  });
  it('understands a whole sentence: a stiff ankle, with a band', () => {
    const [first] = found('something for a stiff ankle with a band');
    const drill = bundledReference.drills.get(first?.[0] ?? '');
    expect(drill?.regions.primary).toContain('ankle-foot');
    expect(drill?.equipment.join()).toContain('band');
  });
  it('"warm up three minutes without kit" finds what raises the pulse with nothing at hand', () => {
    const hits = found('warm up three minutes without kit').map(([id]) => bundledReference.drills.get(id));
    expect(hits.length).toBeGreaterThan(4);
    for (const drill of eachOf(hits.slice(0, 5)))
      expect(drill).toMatchObject({ category: 'raise', equipment: [] });
  });
  it('"sore elbow, low load" finds light work for what is sore there', () => {
    const hits = found('sore elbow, low load').map(([id]) => bundledReference.drills.get(id));
    expect(hits.length).toBeGreaterThan(1);
    for (const drill of eachOf(hits.slice(0, 3))) {
      expect(drill?.serves.some((s) => /elbow.*irritability/.test(s.restriction))).toBe(true);
      expect(['unloaded', 'partial']).toContain(drill?.loadClass);
    }
  });
  it('"stif ankle band" finds the ankle freed with a band, and fills up with what misses one of the words', () => {
    const scores = searchDrills(bundledReference, 'stif ankle band', 8);
    const [first, ...more] = [...(scores ?? [])].sort((a, b) => b[1] - a[1]).map(([id]) => id);
    expect(first).toBe('band-ankle-mobilisation');
    expect(more.length).toBeGreaterThan(6);
  });
  it('forgives a misspelt word, and finds nothing for what is nowhere', () => {
    expect(namesOf('hamstrng bridge').length).toBeGreaterThan(0);
    expect(namesOf('xylophone')).toEqual([]);
    expect(searchDrills(bundledReference, '  ')).toBeNull();
  });
  it.each([
    ['cat cow', 'cat-camel'],
    ['press ups', 'push-up'],
    ['clamshell', 'side-lying-clam'],
    ['Star-Jumps', 'jumping-jack'],
  ])('knows what people say: "%s"', (said, drill) => {
    expect(found(said)[0]?.[0]).toBe(drill);
  });
});

describe('words as the library has them', () => {
  it('what nobody knows otherwise stays as it is, and a wording inside a word is none', () => {
    expect(asNamed(bundledReference, 'Xylophone, slowly')).toBe('xylophone, slowly');
    expect(asNamed(bundledReference, 'concatcow')).toBe('concatcow');
  });
  it('every wording of the reference leads to words that some drill has', () => {
    const { saidAs } = bundledReference.data.synonyms;
    for (const { said, means } of eachOf(saidAs))
      expect(found(means).length, `${said}: ${means}`).toBeGreaterThan(0);
  });
  it.each([
    ['raises', 'raise'],
    ['presses', 'press'],
    ['press', 'press'],
    ['abs', 'abs'],
  ])('%s is %s', (word, own) => {
    expect(stem(word)).toBe(own);
  });
});
