/** A file of the build as its manifest tells of it; only what is read here. */
export interface BuiltFile {
  file: string
  /** Keys of the files that it cannot begin without. */
  imports?: readonly string[]
  css?: readonly string[]
  isEntry?: boolean
}

/** Files that a page needs beside those of every page. */
export interface EarlyPage {
  /** As the router names it: `/card/:id()`. */
  path: string
  modules: string[]
  styles: string[]
}

interface Page {
  path: string
  /** Key of its file in the manifest. */
  source: string
}

/** What each page needs, as one table made with the build. */
export function earlyPages(manifest: Readonly<Record<string, BuiltFile>>, pages: readonly Page[]): EarlyPage[] {
  const everywhere = new Set(
    Object.keys(manifest)
      .filter((key) => manifest[key]!.isEntry)
      .flatMap((key) => [...needs(manifest, key)]),
  )
  return pages
    .filter(({ source }) => manifest[source])
    .map(({ path, source }) => {
      const files = [...needs(manifest, source)].filter((key) => !everywhere.has(key)).map((key) => manifest[key]!)
      return {
        path,
        modules: unique(files.map(({ file }) => file)),
        styles: unique(files.flatMap(({ css = [] }) => css)),
      }
    })
}

/** A file and all that it cannot begin without; in their order, the file first. */
function needs(manifest: Readonly<Record<string, BuiltFile>>, key: string, found = new Set<string>()): Set<string> {
  if (!manifest[key] || found.has(key)) return found
  found.add(key)
  for (const imported of manifest[key].imports ?? []) needs(manifest, imported, found)
  return found
}

const unique = (list: readonly string[]) => [...new Set(list)]

/** What a page asks the server for before anything else, by the path of the page; `:id` stands for the page's own. */
const QUESTIONS: Readonly<Record<string, readonly string[]>> = {
  '/': ['/api/cards', '/api/rosters', '/api/seals'],
  '/card/:id()': ['/api/cards/:id', '/api/fonts'],
}

/**
 * Links by which a browser fetches at once what the page at a path will ask for (HTML, link types `modulepreload` and `preload`):
 * without them it learns of each file first from the one before it. Empty where no page is at that path.
 *
 * `folder`: where the files of the build are served, with its slash.
 */
export function earlyLinks(pages: readonly EarlyPage[], folder: string, path: string): string {
  for (const page of pages) {
    const found = patternOf(page.path).exec(path)
    if (!found) continue
    const id = found[1] ?? ''
    return [
      ...(QUESTIONS[page.path] ?? []).map(
        (question) => `<link rel="preload" as="fetch" crossorigin href="${question.replace(':id', id)}">`,
      ),
      ...page.styles.map((file) => `<link rel="preload" as="style" crossorigin href="${folder}${file}">`),
      ...page.modules.map((file) => `<link rel="modulepreload" as="script" crossorigin href="${folder}${file}">`),
    ].join('')
  }
  return ''
}

/** What stands for an id is taken only where it can stand in an attribute as it is. */
const patternOf = (path: string) => new RegExp(`^${path.replace(/:\w+\(\)/g, '([\\w-]+)')}/?$`)
