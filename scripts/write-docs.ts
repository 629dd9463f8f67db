import { writeFileSync } from 'node:fs'
import { MADE_PAGES, MADE_SCHEMAS } from './made-docs'

// Writes the files of `docs` that are made from code.
for (const { file, made } of MADE_PAGES) writeFileSync(`docs/${file}`, made())
for (const { file, made } of MADE_SCHEMAS) writeFileSync(`docs/${file}`, `${JSON.stringify(made(), null, 2)}\n`)
