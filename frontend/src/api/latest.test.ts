import { describe, expect, it } from 'vitest';
import { latest } from './latest';

function later<T>() {
  let settle!: { resolve: (value: T) => void; reject: (error: unknown) => void };
  const promise = new Promise<T>((resolve, reject) => (settle = { resolve, reject }));
  return { promise, ...settle };
}

describe('latest', () => {
  it('drops an answer that comes after a later question', async () => {
    const asks = latest();
    const got: string[] = [];
    const [first, second] = [later<string>(), later<string>()];
    const both = [first, second].map((q) =>
      asks.ask(
        () => q.promise,
        (a) => got.push(a),
        (e) => got.push(`refused ${String(e)}`),
      ),
    );
    second.resolve('second');
    first.resolve('first');
    await Promise.all(both);
    expect(got).toEqual(['second']);
  });

  it('drops a refusal that comes late, and tells one in time', async () => {
    const asks = latest();
    const got: unknown[] = [];
    const late = later<string>();
    const first = asks.ask(
      () => late.promise,
      (a) => got.push(a),
      (e) => got.push(e),
    );
    await asks.ask(
      () => Promise.reject(new Error('no')),
      (a) => got.push(a),
      (e) => got.push((e as Error).message),
    );
    late.reject(new Error('late'));
    await first;
    expect(got).toEqual(['no']);
  });

  it('forgets what is under way', async () => {
    const asks = latest();
    const got: unknown[] = [];
    const under = later<string>();
    const asked = asks.ask(
      () => under.promise,
      (a) => got.push(a),
      (e) => got.push(e),
    );
    asks.forget();
    under.resolve('too late');
    await asked;
    expect(got).toEqual([]);
  });
});
