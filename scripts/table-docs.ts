import { writeFileSync } from 'node:fs'
import { brushDocs } from '../core/brushes/docs'
import { coatDocs } from '../core/coats/docs'
import { deliveryDocs } from '../core/formats/deliveries/docs'
import { finishDocs } from '../core/finishes/docs'
import { maskDocs } from '../core/masks/docs'
import { proofDocs } from '../core/judge/proof/docs'
import { rosterDocs } from '../core/rosters/docs'
import { runningPage } from './running-page'
import { stepDocs } from '../core/steps/docs'
import { pieceDocs } from '../core/pieces/docs'
import { motorDocs } from '../core/values/motors/docs'
import { letterMotionDocs } from '../core/type/docs'

// Writes the pages that are made from tables.
writeFileSync('docs/brushes.md', brushDocs())
writeFileSync('docs/coats.md', coatDocs())
writeFileSync('docs/deliveries.md', deliveryDocs())
writeFileSync('docs/finishes.md', finishDocs())
writeFileSync('docs/outline-steps.md', stepDocs())
writeFileSync('docs/masks.md', maskDocs())
writeFileSync('docs/pieces.md', pieceDocs())
writeFileSync('docs/motors.md', motorDocs())
writeFileSync('docs/proof.md', proofDocs())
writeFileSync('docs/rosters.md', rosterDocs())
writeFileSync('docs/running.md', runningPage())
writeFileSync('docs/letter-motion.md', letterMotionDocs())
