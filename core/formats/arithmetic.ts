/**
 * The value of simple arithmetic as a hand types it into a field: numbers (with point or comma), + − * /, brackets. Null
 * where it is none, or where it divides by zero.
 */
export function arithmetic(text: string): number | null {
  const tokens = text.replaceAll(',', '.').match(/\d+\.?\d*|\.\d+|[-+*/()×÷−]|\S/g)
  if (!tokens || tokens.length > 200) return null
  let at = 0
  const take = (...wanted: string[]) => (wanted.includes(tokens[at] ?? '') ? tokens[at++]! : null)

  // sum := product (± product)*, product := factor (×÷ factor)*, factor := ± factor | ( sum ) | number
  function sum(): number {
    let value = product()
    for (let sign = take('+', '-', '−'); sign; sign = take('+', '-', '−')) value += (sign === '+' ? 1 : -1) * product()
    return value
  }
  function product(): number {
    let value = factor()
    for (let sign = take('*', '/', '×', '÷'); sign; sign = take('*', '/', '×', '÷')) {
      value = sign === '*' || sign === '×' ? value * factor() : value / factor()
    }
    return value
  }
  function factor(): number {
    const sign = take('+', '-', '−')
    if (sign) return (sign === '+' ? 1 : -1) * factor()
    if (take('(')) {
      const value = sum()
      return take(')') ? value : NaN
    }
    return Number(tokens![at++] ?? NaN)
  }

  const value = sum()
  return at === tokens.length && Number.isFinite(value) ? value : null
}
