import { settingsTable } from './settings.mjs'

/** The page on running it for real, made from the table of settings: docs/running.md. */
export const runningPage = (): string => `# Running it for real

Made from \`scripts/settings.mjs\` by \`npm run docs\`; do not edit by hand.

\`npm start\` runs the application with the data of those who use it, and no demo data. It installs what it needs from Debian, builds what is
not built, brings the database to the form of today, and keeps web server and render worker running. SIGTERM or Ctrl-C stops it: saves that
are under way are ended, renders go back into the queue with the frames that they have, and go on at the next start.

## Settings

All are read from the environment and checked at the start; what is wrong is named with its remedy, and nothing is started.

${settingsTable()}

## Behind a reverse proxy

Let the application listen on loopback, name the proxy’s host in \`WAX_ALLOWED_HOSTS\`, and hand on the header \`Host\` as it came. By that
name everybody needs a token: \`WAX_TOKEN\`, or one that is made in the press room. For nginx:

\`\`\`
location / {
  proxy_pass http://127.0.0.1:3000;
  proxy_set_header Host $host;
  proxy_http_version 1.1;
  proxy_buffering off;          # events of the press room come one by one
  client_max_body_size 1100m;   # as WAX_MOST_SEQUENCE
}
\`\`\`

Encryption is the proxy’s work. Files are served packed (gzip, Brotli) and may be kept for good where their name is made from their contents.

## More workers

On another machine: \`npm run worker -- --server URL --token TOKEN\`, with the token of the settings or one from the press room. It needs this
project in the same version and no folder of the server. With \`WAX_RENDER_THREADS=0\` the server itself makes no
frames; it still puts together what others made.

## Backup

\`npm run backup -- --out FILE\` writes database and files into one archive while the application is used: first the database as it is at one
moment, then the finished files that it names; pictures that can be read from them again are left out. Every file lies there with its
SHA-256, and the archive is read again before it gets its name. \`npm run restore -- FILE\` reads all of it and holds it against the hashes
before anything is changed: all of it comes, or nothing. It refuses while anybody is connected to the database, and where there are cards
already unless \`--replace\` is said. The former files lie beside until the database is the new one; a restore that was killed is put right by
the next one. Both use the settings above. PostgreSQL’s own programs must be of the server’s version
or newer.

## Health and logs

\`GET /api/health\` tells version, database, disk and workers: 503 where the database does not answer, \`well: false\` where the disk is full.
Logs are lines of JSON on standard output, one an event: \`time\`, \`level\`, \`part\` (server or worker), \`event\`. Nothing that people wrote is in
them: no wording, no names of files, no values of the database.
`
