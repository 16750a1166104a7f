// @vitest-environment happy-dom
import { mount } from '@vue/test-utils';
import { expect, it } from 'vitest';
import { nextTick, ref } from 'vue';
import { keepFocus } from './keepFocus';

it('gives the keyboard to the nearest part that stays when a button goes away', async () => {
  const there = ref(true);
  const page = mount(
    { setup: () => (keepFocus(), { there }), template: '<section><div id="part"><button v-if="there">Discard</button></div></section>' },
    { attachTo: document.body },
  );
  page.get('button').element.focus();
  there.value = false;
  await nextTick();
  await new Promise((done) => setTimeout(done, 20));
  expect(document.activeElement?.id).toBe('part');
  page.unmount();
});
