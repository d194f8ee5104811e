import { expect, test } from 'vitest'
import { isLetter, keyName, keyWords } from './keys'

const pressed = (key: string, held: Partial<KeyboardEvent> = {}) => ({
  key,
  ctrlKey: false,
  metaKey: false,
  altKey: false,
  shiftKey: false,
  ...held,
})

test('a key is written the same whatever keyboard it comes from', () => {
  expect(keyName(pressed('W', { shiftKey: true }))).toBe('w')
  expect(keyName(pressed('z', { ctrlKey: true }))).toBe('mod+z')
  expect(keyName(pressed('z', { metaKey: true }))).toBe('mod+z')
  expect(keyName(pressed('Z', { ctrlKey: true, shiftKey: true }))).toBe('mod+shift+z')
  expect(keyName(pressed('ArrowUp', { altKey: true }))).toBe('alt+arrowup')
  // A sign that needs Shift is that sign.
  expect(keyName(pressed('?', { shiftKey: true }))).toBe('?')
})

test('only what is one letter, digit or sign can be switched off', () => {
  expect(['w', '1', '/', '?'].every(isLetter)).toBe(true)
  expect(['f8', 'mod+s', 'escape', 'arrowleft'].some(isLetter)).toBe(false)
})

test('the list writes keys as they stand on a keyboard', () => {
  expect(keyWords({ key: 'mod+shift+z' })).toBe('Ctrl + Shift + Z')
  expect(keyWords({ key: ['arrowleft', 'arrowright'] })).toBe('←, →')
  expect(keyWords({ key: ['a', 'b', 'c'], shown: 'A to C' })).toBe('A to C')
})
