// @vitest-environment happy-dom
import { mount } from '@vue/test-utils';
import { describe, expect, it } from 'vitest';
import AngleInput from './AngleInput.vue';
import NumberInput from './NumberInput.vue';

const angle = (over: Record<string, unknown> = {}) =>
  mount(AngleInput, { props: { modelValue: null, label: 'longitude', kind: 'lon', extent: [54.3, -3.2, 54.5, -3.0], ...over } as never });

describe('an angle field', () => {
  it('says how it understood what is typed, and gives degrees', async () => {
    const field = angle();
    await field.get('input').setValue('3 06 W');
    expect(field.emitted('update:modelValue')?.at(-1)).toEqual([-3.1]);
    expect(field.text()).toContain('degrees, minutes: 3° 06′ 00.00″ W = −3.100000°');
  });

  it('doubts a longitude without its west and takes it on a click', async () => {
    const field = angle();
    await field.get('input').setValue('3.1');
    expect(field.text()).toContain('This lies 6.1° from the project; with W it lies at the project.');
    await field.get('button').trigger('click');
    expect(field.emitted('update:modelValue')?.at(-1)).toEqual([-3.1]);
    expect(field.get('input').element.value).toBe('3° 06′ 00.0000″ W');
    expect(field.find('button').exists()).toBe(false);
  });

  it('refuses what is no angle, and gives nothing for it', async () => {
    const field = angle({ kind: 'lat', label: 'latitude' });
    await field.get('input').setValue('91');
    expect(field.get('[role=alert]').text()).toBe('a latitude lies between −90 and 90 degrees');
    expect(field.get('input').attributes('aria-invalid')).toBe('true');
    expect(field.emitted('update:modelValue')?.at(-1)).toEqual([null]);
    expect(field.emitted('problem')?.at(-1)).toEqual(['a latitude lies between −90 and 90 degrees']);
  });

  it('keeps what was typed while its value comes back, and follows a value given from outside', async () => {
    const field = angle();
    await field.get('input').setValue('-3 06');
    await field.setProps({ modelValue: -3.1 });
    expect(field.get('input').element.value).toBe('-3 06');
    await field.setProps({ modelValue: -3.05 });
    expect(field.get('input').element.value).toBe('-3.05');
    await field.setProps({ modelValue: null });
    expect(field.get('input').element.value).toBe('');
  });

  it('does not wipe a wrong entry when its nothing comes back', async () => {
    const field = angle({ modelValue: -3 });
    await field.get('input').setValue('3 75');
    await field.setProps({ modelValue: null });
    expect(field.get('input').element.value).toBe('3 75');
  });
});

describe('a number field', () => {
  it('groups what is typed and gives it in its own unit', async () => {
    const field = mount(NumberInput, { props: { modelValue: null, label: 'grid step', unit: 'ft', factor: 0.3048 } });
    expect(field.text()).toContain('grid step ft');
    await field.get('input').setValue('12 345,5');
    expect(field.emitted('update:modelValue')?.at(-1)?.[0]).toBeCloseTo(12345.5 * 0.3048, 9);
    expect(field.text()).toContain('12\u2009345.5 ft');
  });

  it('shows a value given in its unit and digits', async () => {
    const field = mount(NumberInput, { props: { modelValue: 304.8, label: 'e', factor: 0.3048, digits: 2 } });
    expect(field.get('input').element.value).toBe('1000');
    await field.setProps({ modelValue: 0.3048 });
    expect(field.get('input').element.value).toBe('1');
  });

  it('says what is not a number', async () => {
    const field = mount(NumberInput, { props: { modelValue: 1, label: 'e' } });
    await field.get('input').setValue('ten');
    expect(field.text()).toContain('is not a number');
    expect(field.emitted('update:modelValue')?.at(-1)).toEqual([null]);
    await field.setProps({ modelValue: null });
    expect(field.get('input').element.value).toBe('ten');
  });
});
