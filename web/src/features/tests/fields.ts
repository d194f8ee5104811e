import type { BenchTest, BenchTestKind } from '../../api/client'

type Field = readonly [name: string, label: string]

interface TestFields {
  /** With what it is done. */
  with: readonly Field[]
  /** What is read; nothing where it is yes or no. */
  read: readonly Field[]
}

/** The numbers of each test, as they are asked for. */
export const FIELDS: Record<BenchTestKind, TestFields> = {
  plate_spread: { with: [['ml', 'Cup, mL']], read: [['across_mm', 'Across, mm']] },
  ring_slump: { with: [['high_mm', 'Ring, mm high']], read: [['sank_mm', 'Sank, mm']] },
  tilt: { with: [['thick_mm', 'Layer, mm']], read: [['degrees', 'Angle, degrees']] },
  spoon_fall: {
    with: [
      ['ml', 'Spoon, mL'],
      ['cm2', 'It hangs on, cm²'],
    ],
    read: [],
  },
  rod: { with: [['wide_mm', 'Rod, mm wide']], read: [['grams', 'On it, g']] },
  drip_length: {
    with: [
      ['dose_ml', 'Dose, mL'],
      ['side_c', 'Side, °C'],
    ],
    read: [['long_mm', 'Long, mm']],
  },
  cup_flow: {
    with: [
      ['ml', 'Cup, mL'],
      ['spout_mm', 'Spout, mm wide'],
      ['long_mm', 'Spout, mm long'],
      ['head_mm', 'Height above its end, mm'],
    ],
    read: [['seconds', 'Time, s']],
  },
  held_weight: { with: [['ml', 'Cup, mL']], read: [['grams', 'In it, g']] },
}

/** A test with its numbers. */
export function testOf(kind: BenchTestKind, numbers: Record<string, number>, fell?: boolean): BenchTest {
  const own = fell === undefined ? { kind, ...numbers } : { kind, ...numbers, fell }
  return own as unknown as BenchTest
}
