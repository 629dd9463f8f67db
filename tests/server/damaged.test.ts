import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import type { RenderWish } from '#core/formats/deliveries/render-options'
import type { DeliveryFormat } from '#core/formats/deliveries/table'
import { deliveryOf, DELIVERY_FORMATS } from '#core/formats/deliveries/table'
import type { FramePicture } from '#core/frame/engine'
import type { RenderPlan } from '#server/renders/plan'
import type { Damage } from '../support/damages'
import { damages } from '../support/damages'
import { framesOf, held, planned, softCard, written } from '../support/delivered'

// Every delivery is damaged on purpose in every way in which it can be: its check must refuse it, and say what was done where that
// can be known. What cannot happen to a delivery is said beside the damage.

const folder = mkdtempSync(join(tmpdir(), 'wax-damaged-'))
afterAll(() => rmSync(folder, { recursive: true, force: true }))

/** Every delivery, fill and key as all that they are written as, with a timecode where they can have one. */
const CASES = (
  [
    ...DELIVERY_FORMATS.map((format) => [format, format, {}]),
    ['fillkey png', 'fillkey', { codec: 'png' }],
    ['fillkey h264', 'fillkey', { codec: 'h264', fill: 'straight', key: 'full' }],
    ['fillkey full', 'fillkey', { key: 'full', fill: 'straight' }],
    ['prores4444 premultiplied', 'prores4444', { alpha: 'premultiplied', matte: '#20C080' }],
    ['movpng 16 bits premultiplied', 'movpng', { bits: 16, alpha: 'premultiplied' }],
  ] as [string, DeliveryFormat, Partial<RenderWish>][]
).map(([name, format, options]): [string, DeliveryFormat, Partial<RenderWish>] => {
  const hasTimecode = 'timecode' in deliveryOf(format).options && options.codec !== 'png'
  return [name, format, hasTimecode ? { ...options, timecode: '01:00:00:00' } : options]
})

const DAMAGES = damages(CASES.map(([name]) => name))
/** Whether a list names a case, or the whole format that it is of. */
const names = (list: Readonly<Record<string, string>> = {}, name: string) =>
  list[name] !== undefined || (name !== 'fillkey png' && list[name.split(' ')[0]!] !== undefined)

/** One of four, so that each damage is done to several deliveries and each delivery has many; all of them with WAX_DAMAGES=all. */
const isDone = (one: number, other: number) => process.env.WAX_DAMAGES === 'all' || (one + other) % 4 === 0

const done = CASES.flatMap(([name]) => Object.values(DAMAGES).filter(({ cannot }) => !names(cannot, name)))

test('the matrix has at least 255 damages, and most of them are to be told by their cause', () => {
  expect(done.length).toBeGreaterThanOrEqual(255)
  expect(done.filter(({ cause }) => cause).length).toBeGreaterThan(130)
})

describe.each(CASES)('%s', (name, format, options) => {
  // GIF counts in hundredths of a second.
  const card = { ...softCard(format === 'gif' ? { numerator: 25, denominator: 1 } : undefined), length: 6 }
  const isSmall = format === 'still'
  const wish: RenderWish = { format, from: 0, to: isSmall ? 1 : card.length, ...options }
  let frames: FramePicture[]
  let plan: RenderPlan

  const plannedAt = (where: string): RenderPlan => {
    const files = deliveryOf(format).files({ ...options })
    return planned(
      card,
      wish,
      files.map(({ role, ending }) => join(folder, `${name}-${where}${role}${ending}`.replace(/ /g, '-'))),
    )
  }

  beforeAll(async () => {
    plan = plannedAt('whole')
    frames = framesOf(card, plan.plan).slice(0, isSmall ? 1 : undefined)
    await written(plan.plan, frames)
  })

  test('whole, it passes, and says so of all that it was asked', async () => {
    const { passed, checks, read } = await held(plan, frames)
    expect(checks.filter((check) => !check.passed)).toEqual([])
    expect(passed).toBe(true)
    expect(read).toHaveLength(isSmall ? 1 : 6)
    expect(checks.map((check) => check.name)).toEqual(expect.arrayContaining(['frames', 'size', 'colour', 'order']))
    if (!isSmall) expect(checks.map((check) => check.name)).toContain('seam')
  })

  const place = CASES.findIndex(([one]) => one === name)
  const damagesOf = Object.entries(DAMAGES).filter(([, { cannot }], i) => !names(cannot, name) && isDone(i, place))
  test.each(damagesOf)('with %s, it is refused', async (what: string, { make, cause, untold }: Damage) => {
    const now = plannedAt(what.replace(/\W+/g, '-'))
    await make({ name, plan: plan.plan, frames }, now.plan)
    const { passed, checks } = await held(now, frames)
    expect(passed).toBe(false)
    expect(checks.filter((check) => !check.passed)).not.toEqual([])
    if (cause && !names(untold, name)) {
      expect(checks.find((check) => check.name === 'cause')?.found).toMatch(cause)
    }
  })
})
