// Unpacks a LAZ file to LAS with the laz-perf package: node unpack.mjs FOLDER_OF_NODE_MODULES IN.laz OUT.las
import { closeSync, openSync, readFileSync, writeSync } from 'node:fs';
import { createRequire } from 'node:module';
import { join } from 'node:path';

const [modules, from, to] = process.argv.slice(2);
const { createLazPerf } = createRequire(join(modules, 'x'))('laz-perf');
const BLOCK = 20000;
/** Places in the header of LAS 1.0 to 1.4. */
const [MINOR, POINTS_AT, FORMAT, EXTENDED_COUNT] = [25, 96, 104, 243];

const bytes = readFileSync(from);
// The table of chunks stands behind the points: a file that ends before it is cut off, and its decoder would never end.
const begin = bytes.length > POINTS_AT + 4 ? bytes.readUInt32LE(POINTS_AT) : bytes.length;
const table = begin + 8 <= bytes.length ? bytes.readBigInt64LE(begin) : -1n;
if (table < BigInt(begin) || table + 8n > BigInt(bytes.length)) throw new Error('the table of its chunks is not there');
const perf = await createLazPerf();
const file = perf._malloc(bytes.length);
perf.HEAPU8.set(bytes, file);
const zip = new perf.LASZip();
zip.open(file, bytes.length);
const [count, size] = [zip.getCount(), zip.getPointLength()];

const head = Buffer.from(bytes.subarray(0, begin));
head[FORMAT] &= 0x3f;
if (head[MINOR] >= 4) head.writeUInt32LE(0, EXTENDED_COUNT); // records behind the points stay behind
const out = openSync(to, 'w');
writeSync(out, head);
const point = perf._malloc(size);
for (let done = 0; done < count; done += BLOCK) {
  const n = Math.min(BLOCK, count - done);
  const block = Buffer.alloc(n * size);
  for (let i = 0; i < n; i += 1) {
    zip.getPoint(point);
    block.set(perf.HEAPU8.subarray(point, point + size), i * size);
  }
  writeSync(out, block);
}
closeSync(out);
