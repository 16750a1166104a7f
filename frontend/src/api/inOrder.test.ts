import { describe, expect, it } from 'vitest';
import { inOrder } from './inOrder';

describe('changes in order', () => {
  it('are sent one after the other, and the last answer counts', async () => {
    const log: string[] = [];
    const release: (() => void)[] = [];
    const changes = inOrder();
    const send = (name: string) =>
      changes.send(
        () => {
          log.push(`sent ${name}`);
          return new Promise<string>((r) => release.push(() => r(name)));
        },
        (answer) => log.push(`answered ${answer}`),
      );
    const both = Promise.all([send('a'), send('b')]);
    await Promise.resolve();
    await Promise.resolve();
    expect(log).toEqual(['sent a']);
    expect(changes.busy()).toBe(true);
    release[0]!();
    await new Promise((r) => setTimeout(r));
    release[1]!();
    await both;
    expect(log).toEqual(['sent a', 'sent b', 'answered b']);
    expect(changes.busy()).toBe(false);
  });

  it('go on after one that was refused', async () => {
    const changes = inOrder();
    const refused = changes.send(
      () => Promise.reject(new Error('no')),
      () => undefined,
    );
    let answer = 0;
    const next = changes.send(
      async () => 7,
      (a) => (answer = a),
    );
    await expect(refused).rejects.toThrow('no');
    await next;
    expect(answer).toBe(7);
  });
});
