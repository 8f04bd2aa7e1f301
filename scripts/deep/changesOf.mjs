// Usage: node --import tsx scripts/deep/changesOf.mjs CHANGES [ROOM] [SEED]; every room and seeds 1 to 3 unless told.
import { changes, ROOMS } from './changes.mjs';

const [wanted, room, seed] = process.argv.slice(2);
const sums = [];
for (const one of room ? [room] : ROOMS)
  for (const from of seed ? [Number(seed)] : [1, 2, 3])
    sums.push({ room: one, ...(await changes(one, from, Number(wanted))) });
for (const one of new Set(sums.map((sum) => sum.room))) {
  const own = sums.filter((sum) => sum.room === one);
  const [made, caught] = ['made', 'caught'].map((key) => own.reduce((all, sum) => all + sum[key], 0));
  console.log(`| ${one} | ${made} | ${made - caught} | ${((100 * (made - caught)) / made).toFixed(0)} % |`);
}
