import { describe, expect, test } from '@jest/globals'
import { GridPoints } from '#core/outline/grid-points'
import { hashed } from '#core/values/ring-noise'

describe('points on a grid', () => {
  test('are found again with their marks, however full the table is and however far out they lie', () => {
    const plain = new Map<string, boolean>()
    const points = Array.from({ length: 4000 }, (_, i) => ({
      // Far beyond 32 bits, and many in one place.
      x: Math.round((hashed(i, 1) - 0.5) * (i % 2 ? 1e11 : 40)),
      y: Math.round((hashed(i, 2) - 0.5) * (i % 2 ? 1e11 : 40)),
      marked: hashed(i, 3) > 0.8,
    }))
    const table = new GridPoints(points.length)
    for (const { x, y, marked } of points) {
      table.put({ x, y }, marked)
      plain.set(`${x} ${y}`, marked || (plain.get(`${x} ${y}`) ?? false))
    }
    for (const [name, marked] of plain) {
      const [x, y] = name.split(' ').map(Number) as [number, number]
      expect([table.has({ x, y }), table.marked({ x, y })]).toEqual([true, marked])
    }
    for (let x = -60; x < 60; x++) expect(table.has({ x, y: 7 })).toBe(plain.has(`${x} 7`))
  })
})
