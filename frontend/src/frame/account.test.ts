// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { office, Refusal, show } from '../../tests/office';
import AccountSection from './AccountSection.vue';

afterEach(() => vi.unstubAllGlobals());

const AGENT = 'Mozilla/5.0 (X11; Linux x86_64) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/140.0 Safari/537.36';
const at = '2031-05-04T09:00:00Z';
const here = { id: 1, address: '10.0.0.5', agent: AGENT, begunAt: at, usedAt: at, current: true };
const there = { ...here, id: 2, address: '10.0.0.9', agent: '', current: false };

describe('one’s own account', () => {
  it('lists where one is signed in, and signs out there', async () => {
    const o = office({ 'GET /api/account/sessions': [here, there], 'DELETE /api/account/sessions/2': [here] });
    const section = await show(AccountSection);
    expect(section.findAll('li').map((l) => l.text().replace(/\s+/g, ' '))).toEqual([
      expect.stringContaining('Chrome on Linux'),
      expect.stringContaining('unknown'),
    ]);
    expect(section.findAll('li')[0]!.text()).toContain('here');
    await section.get('button[aria-label="Sign out unknown at 10.0.0.9"]').trigger('click');
    await flushPromises();
    expect(o.calls.at(-1)!.route).toBe('DELETE /api/account/sessions/2');
    expect(section.findAll('li')).toHaveLength(1);
  });

  it('changes the password, and says at the field what is wrong', async () => {
    let refuse = true;
    const o = office({
      'GET /api/account/sessions': [here],
      'PUT /api/account/password': () =>
        refuse ? new Refusal(422, '/current: is not your password', [{ pointer: '/current', detail: 'is not your password' }]) : [here],
    });
    const section = await show(AccountSection);
    await section.get('[data-test="password-now"]').setValue('old');
    await section.get('[data-test="password-new"]').setValue('a long new one');
    await section.get('form').trigger('submit');
    await flushPromises();
    await vi.waitFor(() => expect(section.text()).toContain('is not your password'));
    refuse = false;
    await section.get('form').trigger('submit');
    await flushPromises();
    expect(section.get('[role="status"]').text()).toContain('signed out everywhere else');
    expect(o.bodies('PUT /api/account/password')[1]).toEqual({ current: 'old', new: 'a long new one' });
  });
});
