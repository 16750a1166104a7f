import { describe, expect, it } from 'vitest';
import { observationRow } from '../../../tests/network';
import { wider } from './wider';

const sight = (id: number, kind: string, to: string, line: number) => observationRow({ id, kind, to, line, at: 'KT03', set: '2' });

describe('what belongs together', () => {
  const rows = [
    sight(1, 'direction', 'KT07', 5),
    sight(2, 'zenith', 'KT07', 5),
    sight(3, 'slope-distance', 'KT07', 5),
    sight(4, 'direction', 'KT05', 6),
    sight(5, 'zenith', 'KT05', 6),
    observationRow({ id: 6, kind: 'direction', at: 'KT03', set: '1' }),
  ];

  it('goes from the pointing to the setup, each once', () => {
    expect(wider(rows[0]!, rows).map((w) => w.text)).toEqual(['the whole pointing (3)', 'directions of KT03/2 (2)', 'setup KT03/2 (5)']);
  });

  it('takes a vector with its components, and its session', () => {
    const parts = ['dx', 'dy', 'dz'].map((component) => observationRow({ id: 9, kind: 'vector', set: 'S3', component }));
    const other = observationRow({ id: 10, kind: 'vector', set: 'S3', component: 'dx' });
    expect(wider(parts[0]!, [...parts, other]).map((w) => w.text)).toEqual(['the whole vector KT03 to KT07 (3)', 'session S3 (4)']);
  });
});
