import { WaxError } from '../errors'
import type { DocumentKind, Reading } from '../documents/document'
import { readDocument, readDocumentText } from '../documents/document'
import type { Stored } from '../documents/upgrades'
import { upgraded } from '../documents/upgrades'
import { oddPlace } from '../documents/odd-json'
import { faultsOf } from '../card/faults'
import type { Seal, SealFile } from './schema'
import { sealFileSchema, SEALS_FORMAT, SEALS_VERSION, sealSchema } from './schema'
import { SEAL_UPGRADES } from './upgrades'

const SEALS: DocumentKind = {
  format: SEALS_FORMAT,
  version: SEALS_VERSION,
  upgrades: SEAL_UPGRADES,
  noun: 'set of seals',
  schema: sealFileSchema,
  faults: faultsOf,
  mostBytes: 16 * 1024 * 1024,
}

/** Reads the text of a `.seals.json` file. */
export const readSealsText = (text: string): Reading<SealFile> => readDocumentText<SealFile>(SEALS, text)
export const readSeals = (value: unknown): Reading<SealFile> => readDocument<SealFile>(SEALS, value)

/** One seal, checked. Throws a WaxError with its first fault. */
export function expectSeal(value: unknown): Seal {
  const odd = oddPlace(value)
  if (odd) throw new WaxError(odd.code, odd.place, odd.message, odd.remedy)
  const result = sealSchema.safeParse(value)
  // The schema is put together from the tables, so that its type is looser than the seal's.
  if (result.success) return result.data as unknown as Seal
  const [first] = result.error.issues.flatMap((issue) => faultsOf(issue, value))
  throw new WaxError(first!.code, first!.place, first!.message, first!.remedy)
}

/** A seal as it lies in a database, with the version of its form; without one it is of the first. Null for one that cannot be read. */
export function storedSeal({ version = 1, ...seal }: Stored): Seal | null {
  const today = { ...upgraded(SEALS, { ...seal, version }) }
  delete today.version
  const { data } = sealSchema.safeParse(today)
  return data ? (data as unknown as Seal) : null
}

/** The file that holds a set of seals. */
export const writeSeals = (name: string, seals: readonly Seal[]): SealFile => ({
  format: SEALS_FORMAT,
  version: SEALS_VERSION,
  name,
  seals: seals.map(({ name: own, tags, variants }) => ({ name: own, tags, variants })),
})
