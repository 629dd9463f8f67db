import { z } from 'zod'
import { brushDocs } from '../core/brushes/docs'
import { cardSchema } from '../core/card/checks'
import { CARD_VERSION } from '../core/card/schema'
import { coatDocs } from '../core/coats/docs'
import { finishDocs } from '../core/finishes/docs'
import { deliveryDocs } from '../core/formats/deliveries/docs'
import { proofDocs } from '../core/judge/proof/docs'
import { maskDocs } from '../core/masks/docs'
import { pieceDocs } from '../core/pieces/docs'
import { rosterDocs } from '../core/rosters/docs'
import { ROSTER_VERSION, rosterSchema } from '../core/rosters/roster'
import { SEALS_VERSION, sealFileSchema } from '../core/seals/schema'
import { stepDocs } from '../core/steps/docs'
import { letterMotionDocs } from '../core/type/docs'
import { motorDocs } from '../core/values/motors/docs'
import { runningPage } from './running-page'

// The files of `docs` that are made from code: what writes them and what tests that they are of today both go by this list.

/** Pages that are made from tables, in Markdown. */
export const MADE_PAGES: readonly { file: string; made: () => string }[] = [
  { file: 'brushes.md', made: brushDocs },
  { file: 'coats.md', made: coatDocs },
  { file: 'deliveries.md', made: deliveryDocs },
  { file: 'finishes.md', made: finishDocs },
  { file: 'letter-motion.md', made: letterMotionDocs },
  { file: 'masks.md', made: maskDocs },
  { file: 'motors.md', made: motorDocs },
  { file: 'outline-steps.md', made: stepDocs },
  { file: 'pieces.md', made: pieceDocs },
  { file: 'proof.md', made: proofDocs },
  { file: 'rosters.md', made: rosterDocs },
  { file: 'running.md', made: runningPage },
]

const FORMS = [
  { file: 'card.schema.json', title: `Wax Ribbon card, version ${CARD_VERSION}`, schema: cardSchema },
  { file: 'seals.schema.json', title: `Wax Ribbon set of seals, version ${SEALS_VERSION}`, schema: sealFileSchema },
  { file: 'roster.schema.json', title: `Wax Ribbon roster, version ${ROSTER_VERSION}`, schema: rosterSchema },
]

/** JSON Schemas of our own files, from their Zod schemas: what they may contain when they are written by hand. */
export const MADE_SCHEMAS: readonly { file: string; made: () => object }[] = FORMS.map(({ file, title, schema }) => ({
  file,
  made: () => ({
    ...z.toJSONSchema(schema, { target: 'draft-2020-12', io: 'input', unrepresentable: 'any', reused: 'ref' }),
    ...{ $id: file, title },
  }),
}))
