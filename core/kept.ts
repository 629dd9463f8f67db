/**
 * What was made before, by what it was made from. Within a budget: what was not asked for longest goes first. Values are
 * shared, so nobody may change one.
 */
export class Kept<K, V> {
  private readonly values = new Map<K, { value: V; weight: number }>()
  private weight = 0

  /** `budget` is what the weights of all values may add up to; every value weighs 1 where nothing else is said. */
  constructor(
    private readonly budget: number,
    private readonly weightOf: (value: V, key: K) => number = () => 1,
  ) {}

  /** The value of a key, made now where it is not kept. What is heavier than the whole budget is made each time. */
  of(key: K, make: () => V): V {
    const found = this.values.get(key)
    if (found) {
      // A Map lists its keys in the order in which they came: the one asked for now comes last. While there is much room,
      // nothing will have to go soon.
      if (this.weight > this.budget / 2) {
        this.values.delete(key)
        this.values.set(key, found)
      }
      return found.value
    }
    const value = make()
    this.keep(key, value)
    return value
  }

  /** How many values are kept. */
  get size(): number {
    return this.values.size
  }

  private keep(key: K, value: V): void {
    const weight = this.weightOf(value, key)
    if (weight > this.budget) return
    // Making one value may have made others, of the same key too.
    this.drop(key)
    this.values.set(key, { value, weight })
    this.weight += weight
    for (const oldest of this.values.keys()) {
      if (this.weight <= this.budget) break
      this.drop(oldest)
    }
  }

  private drop(key: K): void {
    const found = this.values.get(key)
    if (!found) return
    this.values.delete(key)
    this.weight -= found.weight
  }
}
