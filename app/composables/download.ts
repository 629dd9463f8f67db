/** Hands the browser a file to keep: an address of the server's, or a document of our own as JSON. */
export function download(what: string | object, fileName: string): void {
  const isAddress = typeof what === 'string'
  const href = isAddress
    ? what
    : URL.createObjectURL(
        what instanceof Blob ? what : new Blob([`${JSON.stringify(what, null, 2)}\n`], { type: 'application/json' }),
      )
  Object.assign(document.createElement('a'), { href, download: fileName }).click()
  if (!isAddress) URL.revokeObjectURL(href)
}
