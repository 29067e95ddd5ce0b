import '@/testing'
import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { nextTick, ref } from 'vue'
import PickOne from './PickOne.vue'

const options = ['one', 'two', 'three'].map((value) => ({ value, title: value }))

describe('a group of choices', () => {
  it('is one stop for Tab and answers to the arrow keys', async () => {
    const model = ref('two')
    const group = mount(PickOne, {
      attachTo: document.body,
      props: {
        label: 'Numbers',
        options,
        modelValue: 'two',
        'onUpdate:modelValue': (v: string | number) => (model.value = String(v)),
      },
    })
    const stops = () => group.findAll('button').map((b) => (b.element as HTMLButtonElement).tabIndex)
    expect(stops()).toEqual([-1, 0, -1])
    const press = async (key: string) => {
      document.activeElement!.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }))
      await group.setProps({ modelValue: model.value })
      await nextTick()
    }
    ;(group.findAll('button')[1]!.element as HTMLElement).focus()
    await press('ArrowDown')
    expect(model.value).toBe('three')
    expect(document.activeElement?.textContent).toContain('three')
    expect(stops()).toEqual([-1, -1, 0])
    await press('ArrowRight') // round to the first
    expect(model.value).toBe('one')
    await press('ArrowLeft')
    expect(model.value).toBe('three')
    await press('Home')
    expect(model.value).toBe('one')
    await press('a')
    expect(model.value).toBe('one')
    group.unmount()
  })

  it('lets Tab come to the first where nothing is chosen', () => {
    const group = mount(PickOne, { props: { label: 'Numbers', options, modelValue: '' } })
    expect(group.findAll('button').map((b) => (b.element as HTMLButtonElement).tabIndex)).toEqual([0, -1, -1])
  })
})
