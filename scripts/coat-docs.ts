import { coatDocs } from '../core/coats/docs'
import { writeFileSync } from 'node:fs'

// Writes docs/coats.md from the table of coats.
writeFileSync('docs/coats.md', coatDocs())
