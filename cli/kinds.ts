import { parseArgs } from 'node:util'
import { allKinds } from '../core/formats/kinds'

/** `wax kinds [--json]`: every table with its entries and their values. */
export async function kinds(args: string[]): Promise<number> {
  const { values } = parseArgs({ args, options: { json: { type: 'boolean', default: false } } })
  const all = allKinds()
  if (values.json) {
    console.log(JSON.stringify(all, null, 2))
    return 0
  }
  for (const [table, entries] of Object.entries(all)) {
    console.log(table)
    for (const { kind, label, help } of entries.kinds) console.log(`  ${kind}: ${label}${help ? `. ${help}` : ''}`)
  }
  return 0
}
