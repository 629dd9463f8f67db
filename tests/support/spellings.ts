/** Ways to write one address; the first is the plain one. A router, a proxy or a file server may take any of them for the same. */
export function spellings(path: string): string[] {
  const hex = (letter: string) => `%${letter.charCodeAt(0).toString(16)}`
  const last = path.at(-1)!
  return [
    path,
    path.replace('a', hex('a')),
    path.slice(0, -1) + hex(last),
    `/${[...path.slice(1)].map((letter) => (letter === '/' ? letter : hex(letter))).join('')}`,
    path.replace('a', '%2561'),
    `/${path}`,
    `/.${path}`,
    `/fonts/..${path}`,
    `/fonts/%2e%2e${path}`,
    path.replace('/api/', '/api;v=1/'),
    path.replace('/api/', '/API/'),
    path.replace('/api/', '/api%2F'),
    path.replace('/api/', '/api\\'),
    `${path}/`,
    `${path}%3Fx`,
    `${path}?/sign-in`,
    `${path}#`,
    `http://127.0.0.1${path}`,
  ]
}
