import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { BodyRoom } from '#server/rim/body-room'

const settled = () => new Promise((go) => setImmediate(go))

describe('room for bodies', () => {
  test('is given in the order in which it is asked for, as it comes back', async () => {
    const room = new BodyRoom(100)
    const given: string[] = []
    const ask = async (name: string, bytes: number) => {
      const back = await room.take(bytes)
      given.push(name)
      return back!
    }
    const first = await ask('first', 60)
    const large = ask('large', 50)
    // There would be room for it, and the large one would never come.
    const small = ask('small', 10)
    await settled()
    expect(given).toEqual(['first'])
    first()
    first()
    expect(await Promise.all([large, small])).toHaveLength(2)
    expect(given).toEqual(['first', 'large', 'small'])
  })

  test('what is larger than all of it comes alone', async () => {
    const room = new BodyRoom(100)
    const back = await room.take(500)
    let isIn = false
    void room.take(1).then(() => (isIn = true))
    await settled()
    expect(isIn).toBe(false)
    back!()
    await settled()
    expect(isIn).toBe(true)
  })

  test('who waits too long, or comes when too many wait, is sent away; the others go on', async () => {
    const room = new BodyRoom(100, 20)
    const back = await room.take(100)
    const waiting = Array.from({ length: 64 }, () => room.take(1))
    expect(await room.take(1)).toBeNull()
    expect(new Set(await Promise.all(waiting))).toEqual(new Set([null]))
    back!()
    expect(await room.take(100)).not.toBeNull()
  })

  test('there is never more given than there is, and all of it comes back', async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(fc.integer({ min: 0, max: 150 }), { maxLength: 40 }), async (sizes) => {
        const room = new BodyRoom(100)
        let taken = 0
        await Promise.all(
          sizes.map(async (size) => {
            const back = await room.take(size)
            taken += Math.min(size, 100)
            expect(taken).toBeLessThanOrEqual(100)
            await settled()
            taken -= Math.min(size, 100)
            back!()
          }),
        )
        expect(await room.take(100)).not.toBeNull()
      }),
      { numRuns: 50 },
    )
  })
})
