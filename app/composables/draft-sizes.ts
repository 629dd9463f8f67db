/** While a hand moves, a picture should take about so many milliseconds. */
const SMOOTH = 20
/** A little more is borne before the picture becomes smaller. */
const BORNE = 1.3
/** Shares of the full size that a picture can have meanwhile. */
const SHARES = [1, 1 / 2, 1 / 3, 1 / 4]
/** What a picture takes beside its pixels, as a share of the full one. */
const FIXED = 0.25

/** How large pictures are made while a hand moves: as large as is quick enough, by what others took before. */
export class DraftSizes {
  private readonly costs = new Map<number, number>()
  /** Milliseconds of the last full picture on one engine. */
  private full = 0

  /** A full picture took so long on one engine. */
  tookFull(milliseconds: number): void {
    this.full = milliseconds
  }

  /** A picture made while a hand moved. What one size takes says how the others have changed since they were made. */
  took(share: number, milliseconds: number): void {
    const before = this.costs.get(share)
    if (before) for (const [other, cost] of this.costs) this.costs.set(other, (cost * milliseconds) / before)
    this.costs.set(share, milliseconds)
  }

  /** The share of the full size for the next picture; `engines` are free to share it. */
  next(engines: number): number {
    const known = (share: number) =>
      this.costs.get(share) ?? (this.full * (FIXED + (1 - FIXED) * share * share)) / Math.sqrt(Math.max(1, engines))
    return SHARES.find((share) => known(share) <= SMOOTH * BORNE) ?? SHARES.at(-1)!
  }
}
