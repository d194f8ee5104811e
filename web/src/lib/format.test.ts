import { afterEach, describe, expect, it } from 'vitest'
import { clock, moment, setWall } from './format'

afterEach(() => setWall(null))

describe('the clock on the wall', () => {
  it("shows the kitchen's own time, whatever the device shows", () => {
    setWall('Asia/Kathmandu')
    expect(moment('2026-11-24T01:57:00Z')).toBe('Tue 24 Nov, 07:42')
    setWall('Europe/Lisbon')
    expect(moment('2026-10-25T00:30:00Z')).toBe('Sun 25 Oct, 01:30')
    expect(moment('2026-10-25T01:30:00Z')).toBe('Sun 25 Oct, 01:30')
  })

  it("shows the device's time while nobody said, or the name is none", () => {
    const here = clock(new Date('2026-11-24T01:57:00Z'))
    setWall('Middle/Earth')
    expect(clock(new Date('2026-11-24T01:57:00Z'))).toEqual(here)
  })
})
