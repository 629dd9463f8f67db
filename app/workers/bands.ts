/** Bands begin on the grid that parts of a frame lie on. */
const CELL = 64
/** A new split must be better by this share: what engines keep belongs to the old one. */
const WORTH = 0.15

/** An upright band of a picture: lines of type are wide, so that every band has its share of them. */
export interface Band {
  x: number
  w: number
}

/** How a picture is shared among engines: in bands that would have taken equally long the last time. */
export class Bands {
  /** Milliseconds for each column of cells, as far as they are known. */
  private costs: number[] = []
  private last: readonly Band[] = []

  /** At most `count` bands that make up a width. */
  split(width: number, count: number): readonly Band[] {
    const columns = Math.ceil(width / CELL)
    const { last } = this
    const same = last.length === Math.min(count, columns) && endOf(last) === width
    if (this.costs.length !== columns) this.costs = new Array<number>(columns).fill(1)
    const fresh = this.even(width, Math.min(count, columns))
    if (!same || this.longest(fresh) < this.longest(last) * (1 - WORTH)) this.last = fresh
    return this.last
  }

  /** What the bands of the last split took, in milliseconds. */
  took(milliseconds: readonly number[]): void {
    this.last.forEach(({ x, w }, i) => {
      const [from, to] = [x / CELL, Math.ceil((x + w) / CELL)]
      for (let column = from; column < to; column++) this.costs[column] = milliseconds[i]! / (to - from)
    })
  }

  /** Bands of equal cost, as far as whole columns of cells allow. */
  private even(width: number, count: number): Band[] {
    const whole = this.costs.reduce((sum, cost) => sum + cost, 0)
    const starts = [0]
    let sum = 0
    this.costs.forEach((cost, column) => {
      const rest = count - starts.length
      const left = this.costs.length - column
      // The border lies where most of the column's cost is on its own side; every band has one.
      const full = sum + cost / 2 >= (whole * starts.length) / count && column > starts.at(-1)!
      if (rest > 0 && column > 0 && (full || left === rest)) starts.push(column)
      sum += cost
    })
    return starts.map((start, i) => {
      const x = start * CELL
      return { x, w: Math.min(width, (starts[i + 1] ?? Infinity) * CELL) - x }
    })
  }

  private longest(bands: readonly Band[]): number {
    const cost = ({ x, w }: Band) =>
      this.costs.slice(x / CELL, Math.ceil((x + w) / CELL)).reduce((sum, cost) => sum + cost, 0)
    return Math.max(...bands.map(cost))
  }
}

const endOf = (bands: readonly Band[]) => {
  const last = bands.at(-1)
  return last ? last.x + last.w : 0
}
