export interface Setting {
  name: string
  help: string
  standard: string
  read(text: string): string | number | null
}
export const SETTINGS: readonly Setting[]
export function readSettings(env: Readonly<Record<string, string | undefined>>): {
  values: Record<string, string | number | null>
  faults: string[]
}
export function environmentOf(values: Readonly<Record<string, unknown>>, databaseUrl: string): Record<string, string>
export function settingsTable(): string
