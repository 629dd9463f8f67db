import type { Chapter } from './operation'
import * as s from './schemas'

// The routes that are meant for other programs. Those of our own pages and workers alone are not promised to anybody: see UNTOLD.

const FILE = 'application/octet-stream'
const NEWER = { 409: 'A newer revision is saved, or wanted' }
const name = { name: { help: 'Of the file' } }

export const CHAPTERS: readonly Chapter[] = [
  {
    name: 'Cards',
    help: 'Documents on the shelf, their versions, and archives with all that they show.',
    operations: [
      {
        ...{ method: 'get', path: '/cards', summary: 'All cards, last touched first, without their documents.' },
        answer: { json: s.shelfCard.array() },
      },
      {
        ...{ method: 'post', path: '/cards', summary: 'Lays a card on the shelf.' },
        body: { json: s.sentCard },
        answer: { json: s.wholeCard },
        refuses: { 422: 'The document is no card; the first fault is named by its place' },
      },
      {
        ...{ method: 'get', path: '/cards/{id}', summary: 'A card with its document.' },
        answer: { json: s.wholeCard },
      },
      {
        ...{ method: 'put', path: '/cards/{id}', summary: 'Saves a card.' },
        body: { json: s.savedCard },
        answer: { json: s.listedCard },
        refuses: { ...NEWER, 422: 'The document is no card' },
      },
      {
        ...{ method: 'delete', path: '/cards/{id}', summary: 'Takes a card off the shelf; it can be restored.' },
        answer: { json: s.gone },
      },
      {
        ...{ method: 'post', path: '/cards/{id}/restore', summary: 'Brings a deleted card back.' },
        answer: { json: s.listedCard },
      },
      {
        ...{ method: 'get', path: '/cards/{id}/head', summary: 'The revision that is newest.' },
        answer: { json: s.head },
      },
      {
        ...{ method: 'get', path: '/cards/{id}/versions', summary: 'Versions of a card, newest first.' },
        answer: { json: s.version.array() },
      },
      {
        ...{ method: 'post', path: '/cards/{id}/versions', summary: 'Keeps a card as it is now, under a name.' },
        body: { json: s.named },
        answer: { json: s.version },
      },
      {
        ...{ method: 'get', path: '/cards/{id}/versions/{version}', summary: 'A version with its document.' },
        answer: { json: s.wholeVersion },
      },
      {
        ...{ method: 'get', path: '/cards/{id}/archive', summary: 'A card with its fonts, pictures and sequences.' },
        answer: { file: 'application/zip', help: 'A .card.zip' },
      },
      {
        ...{ method: 'post', path: '/archives', summary: 'Takes in a .card.zip: all of it, or nothing.' },
        query: name,
        body: { file: FILE, help: 'The archive' },
        answer: { json: s.wholeCard },
        refuses: { 413: 'Larger than 400 MB', 422: 'It is no archive of a card, or it is damaged' },
      },
    ],
  },
  {
    name: 'Assets',
    help: 'What people bring in. Ids are made from contents: the same file a second time is the same thing.',
    operations: [
      {
        ...{ method: 'get', path: '/fonts', summary: 'Fonts that were brought in.' },
        answer: { json: s.font.array() },
      },
      {
        ...{ method: 'post', path: '/fonts', summary: 'Takes in a TTF, OTF, WOFF or WOFF2 file.' },
        query: name,
        body: { file: FILE, help: 'The font' },
        answer: { json: s.font },
        refuses: { 413: 'Larger than 30 MB', 422: 'It is no font' },
      },
      {
        ...{ method: 'get', path: '/fonts/{id}/file', summary: 'A font as TrueType or OpenType.' },
        answer: { file: 'font/sfnt', help: 'The font' },
      },
      {
        ...{ method: 'get', path: '/pictures', summary: 'Pictures that were brought in, newest first.' },
        answer: { json: s.picture.array() },
      },
      {
        ...{ method: 'post', path: '/pictures', summary: 'Takes in a PNG, JPEG or WebP file.' },
        query: name,
        body: { file: FILE, help: 'The picture' },
        answer: { json: s.picture },
        refuses: { 413: 'Larger than 60 MB', 422: 'It is no picture' },
      },
      {
        ...{ method: 'get', path: '/pictures/{id}/file', summary: 'A picture as it was brought in.' },
        answer: { file: FILE, help: 'The picture' },
      },
      {
        ...{ method: 'get', path: '/sequences', summary: 'Sequences that were brought in, newest first.' },
        answer: { json: s.sequence.array() },
      },
      {
        ...{ method: 'post', path: '/sequences', summary: 'Takes in moving pictures, or a ZIP of numbered PNG files.' },
        query: name,
        body: { file: FILE, help: 'The file' },
        answer: { json: s.sequenceAbout },
        refuses: { 413: 'Larger than 1 GB', 422: 'It is no sequence' },
      },
      {
        ...{ method: 'get', path: '/sequences/{id}', summary: 'A sequence, and how far its pictures have been read.' },
        answer: { json: s.sequenceReading },
      },
      {
        ...{ method: 'get', path: '/sequences/{id}/about', summary: 'What is known of a sequence.' },
        answer: { json: s.sequenceAbout },
      },
      {
        ...{ method: 'get', path: '/sequences/{id}/source', summary: 'A sequence as it was brought in.' },
        answer: { file: FILE, help: 'The file' },
      },
      {
        ...{ method: 'get', path: '/seals', summary: 'All seals by name.' },
        answer: { json: s.seal.array() },
      },
      {
        ...{ method: 'post', path: '/seals', summary: 'Keeps a seal.' },
        body: { json: s.sentSeal },
        answer: { json: s.seal },
        refuses: { 422: 'The document is no seal' },
      },
      {
        ...{ method: 'put', path: '/seals/{id}', summary: 'Changes a seal.' },
        body: { json: s.sentSeal },
        answer: { json: s.seal },
        refuses: { ...NEWER, 422: 'The document is no seal' },
      },
      {
        ...{ method: 'delete', path: '/seals/{id}', summary: 'Takes a seal away; it can be restored.' },
        answer: { json: s.gone },
      },
      {
        ...{ method: 'post', path: '/seals/{id}/restore', summary: 'Brings a seal back.' },
        answer: { json: s.seal },
      },
    ],
  },
  {
    name: 'Renders',
    help: 'Files with verified transparency. A render is asked for, followed by events, and downloaded when it is done.',
    operations: [
      {
        ...{ method: 'get', path: '/renders', summary: 'All renders, the newest first.' },
        answer: { json: s.render.array() },
      },
      {
        ...{ method: 'post', path: '/renders', summary: 'Asks for a render.' },
        body: { json: s.wish },
        answer: { json: s.render },
        refuses: {
          ...{ 409: 'The card has another revision', 507: 'The disk is nearly full' },
          422: 'The format is unknown or cannot carry this, an option is not to be had, or there is no such frame',
        },
      },
      {
        ...{ method: 'get', path: '/renders/events', summary: 'Tells of renders as they change.' },
        more: 'Server-sent events: `render` with a render as it is listed, `gone` with the id of one that was removed.',
        answer: { file: 'text/event-stream', help: 'Events, until you close the stream' },
      },
      {
        ...{ method: 'get', path: '/renders/{id}', summary: 'A render with all that its checks found.' },
        answer: { json: s.wholeRender },
      },
      {
        ...{ method: 'patch', path: '/renders/{id}', summary: 'Keeps a render for good, or no longer.' },
        body: { json: s.keeping },
        answer: { json: s.render },
        refuses: { 422: 'kept is neither true nor false' },
      },
      {
        ...{ method: 'delete', path: '/renders/{id}', summary: 'Removes a render and its files.' },
        answer: { json: s.gone },
      },
      {
        ...{ method: 'post', path: '/renders/{id}/cancel', summary: 'Cancels a render; nothing of it stays.' },
        answer: { json: s.render },
      },
      {
        ...{ method: 'post', path: '/renders/{id}/go-on', summary: 'Tries a render again that failed.' },
        more: 'Frames that are done are not made again.',
        answer: { json: s.render },
        refuses: { 507: 'The disk is nearly full' },
      },
      {
        ...{
          method: 'get',
          path: '/renders/{id}/document',
          summary: 'The card as it was when the render was asked for.',
        },
        answer: { json: s.card },
      },
      {
        ...{
          method: 'get',
          path: '/renders/{id}/files/{index}',
          summary: 'A finished and checked file, counted from 0.',
        },
        answer: { file: FILE, help: 'The file; its kind is in the header' },
      },
      {
        ...{
          method: 'get',
          path: '/renders/{id}/sidecar',
          summary: 'What was made from what, with hashes of all frames.',
        },
        answer: { json: s.sidecar },
      },
      {
        ...{ method: 'get', path: '/renders/{id}/small', summary: 'A small moving picture, with transparency.' },
        answer: { file: 'image/webp', help: 'An animated WebP' },
      },
    ],
  },
  {
    name: 'Rosters',
    help: 'Tables of rows that fill the fields of cards, and their renders: one job of many files, or one programme.',
    operations: [
      {
        ...{ method: 'get', path: '/rosters', summary: 'All rosters, last touched first, without their rows.' },
        answer: { json: s.listedRoster.array() },
      },
      {
        ...{ method: 'post', path: '/rosters', summary: 'Lays a roster on the shelf.' },
        body: { json: s.sentRoster },
        answer: { json: s.wholeRoster },
        refuses: { 422: 'The document is no roster; the first fault is named by its place' },
      },
      {
        ...{ method: 'get', path: '/rosters/{id}', summary: 'A roster with its rows.' },
        answer: { json: s.wholeRoster },
      },
      {
        ...{ method: 'put', path: '/rosters/{id}', summary: 'Saves a roster.' },
        body: { json: s.savedRoster },
        answer: { json: s.listedRoster },
        refuses: { ...NEWER, 422: 'The document is no roster' },
      },
      {
        ...{ method: 'delete', path: '/rosters/{id}', summary: 'Takes a roster off the shelf; it can be restored.' },
        answer: { json: s.gone },
      },
      {
        ...{ method: 'post', path: '/rosters/{id}/restore', summary: 'Brings a deleted roster back.' },
        answer: { json: s.listedRoster },
      },
      {
        ...{ method: 'get', path: '/rosters/{id}/csv', summary: 'A roster as CSV.' },
        answer: { file: 'text/csv', help: 'RFC 4180, UTF-8 with a byte order mark' },
      },
      {
        ...{ method: 'get', path: '/batches', summary: 'All jobs of many files, the newest first.' },
        answer: { json: s.batch.array() },
      },
      {
        ...{ method: 'post', path: '/batches', summary: 'Renders a roster.' },
        body: { json: s.batchWish },
        answer: { json: s.batch },
        refuses: {
          ...{ 409: 'The card or the roster has another revision', 507: 'The disk is nearly full' },
          422: 'No row can be rendered, or an option is not to be had',
        },
      },
      {
        ...{ method: 'get', path: '/batches/{id}', summary: 'A job with its renders in the order of the rows.' },
        answer: { json: s.wholeBatch },
      },
      {
        ...{ method: 'delete', path: '/batches/{id}', summary: 'Removes a job and its files.' },
        answer: { json: s.gone },
      },
      {
        ...{ method: 'post', path: '/batches/{id}/cancel', summary: 'Cancels what is not finished of a job.' },
        answer: { json: s.batch },
      },
      {
        ...{ method: 'post', path: '/batches/{id}/go-on', summary: 'Tries all again that failed or were cancelled.' },
        answer: { json: s.batch },
        refuses: { 507: 'The disk is nearly full' },
      },
      {
        ...{
          method: 'get',
          path: '/batches/{id}/archive',
          summary: 'All finished files, the report and the timeline.',
        },
        answer: { file: 'application/zip', help: 'A ZIP file' },
      },
      {
        ...{ method: 'get', path: '/batches/{id}/report', summary: 'What became of every row.' },
        answer: { file: 'text/csv', help: 'A line for each row' },
      },
      {
        ...{ method: 'get', path: '/batches/{id}/timeline', summary: 'The finished files at their places.' },
        answer: { file: 'application/json', help: 'An OpenTimelineIO file' },
      },
    ],
  },
  {
    name: 'Proofs',
    help: 'How a card will be seen: safe areas, contrast, size of type, halos, banding, flashes, levels, the seam.',
    operations: [
      {
        ...{ method: 'post', path: '/proofs', summary: 'Proves a card; it looks at every frame, which takes a while.' },
        body: { json: s.proofWish },
        answer: { json: s.proof },
        refuses: { 422: 'Neither a card of the shelf nor a document' },
      },
    ],
  },
  {
    name: 'Workers',
    help: 'Who renders, and the tokens that let programs in.',
    operations: [
      {
        ...{ method: 'get', path: '/health', summary: 'Version, database, disk and workers.' },
        answer: { json: s.well },
      },
      {
        ...{ method: 'get', path: '/workers', summary: 'Workers that have been heard of lately.' },
        answer: { json: s.worker.array() },
      },
      {
        ...{ method: 'get', path: '/tokens', summary: 'Tokens that let programs in, the newest first.' },
        answer: { json: s.token.array() },
      },
      {
        ...{ method: 'post', path: '/tokens', summary: 'Makes a token. It is told this once.' },
        body: { json: s.tokenWish },
        answer: { json: s.newToken },
      },
      {
        ...{ method: 'delete', path: '/tokens/{id}', summary: 'Withdraws a token.' },
        answer: { json: s.gone },
      },
    ],
  },
]

/** Routes of our own pages and workers: how they are called may change with every version. */
export const UNTOLD = [
  '/open-api',
  '/sign-in',
  '/cards/deleted',
  '/work/',
  '/pictures/{id}/pixels',
  '/sequences/{id}/small',
  '/examples/',
  '/sequences/{id}/pictures/',
  '/renders/{id}/as-read',
  '/renders/{id}/programme',
] as const
