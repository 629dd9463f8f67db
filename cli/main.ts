import { WaxError } from '../core/errors'
import { DELIVERY_FORMATS } from '../core/formats/deliveries/table'
import { check } from './check'
import { cut } from './cut'
import { flagUsage } from './delivery-flags'
import { evaluate } from './evaluate'
import { kinds } from './kinds'
import { loop } from './loop'
import { proof } from './proof'
import { render } from './render'
import { roster } from './roster'
import { section } from './section'
import { verify } from './verify'

const USAGE = `Usage:
  wax render CARD --out PATH [--format ${DELIVERY_FORMATS.join('|')}]
                  [--frames FIRST-LAST] [--length FRAMES] [--scale 50%|100%|200%] [--name PATTERN] [--sidecar PATH]
                  [--font FILE]… [--picture FILE]… [--sequence PATH]… [--threads N], and of the delivery:
${flagUsage()}
  wax roster CARD ROWS --out FOLDER [--programme] [--threads N] [options of render, without frames and length]
  wax roster CARD ROWS --look [--json]
  wax verify FILE… --against SIDECAR|CARD [--json] [options of render, with a CARD]
  wax check CARD|SEALS|ROSTER
  wax proof CARD [--json] [--roster ROWS] [--backdrop FILE]… [--font FILE]… [--picture FILE]… [--sequence PATH]…
  wax evaluate CARD --frame N
  wax section CARD --piece ID --frame N
  wax kinds [--json]
  wax loop CARD [--json] [--width PX] [--font FILE]… [--picture FILE]… [--sequence PATH]…
  wax cut FILE [--json]
CARD is a .card.json file, or a .card.zip with its fonts, pictures and sequences. --length makes the hold of a card with zones as long as that takes; a hold that moves is played whole, as near to the length as it comes. For sequences of frames, a PATH that ends in .zip makes an archive, any other a folder; of several files each is told apart in its name.\nverify reads delivered files again, as any other program would, and holds them against the sidecar that was written with them, or against\na card: exit code 1 where they are not what was made.
roster fills the fields of a card from a CSV, TSV or JSON file, or a .roster.json: a file for each row that is on, named by {row}, or, with
--programme, one for all rows with timecodes; beside them a report as CSV and, with timecodes, an .otio file. Pictures that cells name lie beside
ROWS. --look tells what is wrong with the rows instead of rendering them. Exit code 1 where a row is left out or failed.
--font brings a TTF, OTF, WOFF or WOFF2 file that the card uses, --picture a PNG, JPEG or WebP file,
--sequence a file of moving pictures, a ZIP file or a folder of numbered PNG files. Where a .card.json names a picture or a sequence by its
file, as in "picture": "boat.png", that file is read from the folder of the card.
section prints, as JSON, what each coat lays at each distance from a straight edge of the piece.
kinds lists every table: pieces, coats, finishes, outline steps, masks, motors, letter motion, paints, curves, blend modes, deliveries, with their values.
proof judges a card as it will be seen: safe areas, contrast, size of type, time to read, halos, banding, thin lines, flashes, levels,
the seam; exit code 1 where something will not do. --backdrop: a still of what the card is for, over which its type is to be read.
loop tells what every moving value does across the seam, and how much neighbouring pictures differ round the ring.
cut tells where a sequence repeats itself and the cut whose seam shows least: of a video, GIF, APNG or animated WebP, or numbered PNG files
in a folder or a ZIP file.`

const COMMANDS = new Map<string, (args: string[]) => Promise<number>>(
  Object.entries({ render, roster, verify, proof, check, evaluate, section, kinds, loop, cut }),
)

const [name = '', ...args] = process.argv.slice(2)
const command = COMMANDS.get(name)
try {
  if (command) process.exitCode = await command(args)
  else {
    console.error(USAGE)
    process.exitCode = name === 'help' || name === '--help' ? 0 : 2
  }
} catch (error) {
  if (error instanceof WaxError) console.error(`${error.fault.place}: ${error.fault.message} ${error.fault.remedy}`)
  else if (isArgumentError(error)) console.error(`${error.message}\n${USAGE}`)
  else console.error(error)
  process.exitCode = isArgumentError(error) ? 2 : 1
}

function isArgumentError(error: unknown): error is Error {
  return error instanceof Error && String((error as { code?: string }).code).startsWith('ERR_PARSE_ARGS')
}
