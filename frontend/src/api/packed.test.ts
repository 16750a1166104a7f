import { describe, expect, it } from 'vitest';
import { unpack } from './packed';

/** Made by hand from the layout in docs/formats.md. */
function answer(): Promise<Blob> {
  const head = JSON.stringify({
    facts: { seq: 7 },
    tables: [
      {
        name: 'points',
        count: 3,
        columns: [
          { name: 'id', kind: 'whole' },
          { name: 'name', kind: 'text', texts: ['01', 'Ωλ'] },
          { name: 'h', kind: 'number' },
          { name: 'used', kind: 'flag' },
        ],
      },
      { name: 'none', count: 0, columns: [{ name: 'id', kind: 'whole' }] },
    ],
  });
  const text = new TextEncoder().encode(head);
  const bytes = new DataView(new ArrayBuffer(4 + text.length + 3 * (4 + 4 + 8 + 1)));
  bytes.setUint32(0, text.length, true);
  new Uint8Array(bytes.buffer).set(text, 4);
  let at = 4 + text.length;
  // 5, null, 3 as differences: 5, 2^32 - 1 - 5, 3 - (2^32 - 1); places 0, 1, null.
  for (const whole of [5, 0xfffffffa, 4, 0, 1, 0xfffffffe]) bytes.setUint32((at += 4) - 4, whole, true);
  for (const number of [1.25, NaN, -0.1]) bytes.setFloat64((at += 8) - 8, number, true);
  for (const flag of [1, 0, 1]) bytes.setUint8(at++, flag);
  return new Response(new Blob([bytes.buffer]).stream().pipeThrough(new CompressionStream('deflate'))).blob();
}

describe('packed answers', () => {
  it('are read as JSON would be', async () => {
    expect(await unpack(await answer())).toEqual({
      seq: 7,
      points: [
        { id: 5, name: '01', h: 1.25, used: true },
        { id: null, name: 'Ωλ', h: null, used: false },
        { id: 3, name: null, h: -0.1, used: true },
      ],
      none: [],
    });
  });
});
