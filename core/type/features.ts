// OpenType features by the tags and names of the standard (OpenType 1.9, Registered features).

/** Features that a designer chooses by hand. */
export const FEATURE_NAMES: Readonly<Record<string, string>> = {
  smcp: 'Small capitals',
  c2sc: 'Small capitals from capitals',
  tnum: 'Tabular figures',
  pnum: 'Proportional figures',
  lnum: 'Lining figures',
  onum: 'Oldstyle figures',
  zero: 'Slashed zero',
  frac: 'Fractions',
  ordn: 'Ordinals',
  sups: 'Superscript',
  subs: 'Subscript',
  liga: 'Standard ligatures',
  dlig: 'Discretionary ligatures',
  calt: 'Contextual alternates',
  salt: 'Stylistic alternates',
  swsh: 'Swash',
  titl: 'Titling',
  case: 'Case-sensitive forms',
}

/** Features that are at work unless they are switched off. */
const STANDARD = ['liga', 'calt']

/** What a feature is called; null for one that is no matter of choice, such as the joining of letters. */
export function featureName(tag: string): string | null {
  const set = /^ss(\d\d)$/.exec(tag)
  return set ? `Stylistic set ${Number(set[1])}` : (FEATURE_NAMES[tag] ?? null)
}

/** Features as a text gives them: `smcp tnum ss01 salt=2 -liga`. What is no tag is passed over. */
export function readFeatures(words: string): { tag: string; value: number }[] {
  return words.split(/[\s,]+/).flatMap((word) => {
    const found = /^(-?)([A-Za-z0-9]{4})(?:=(\d{1,3}))?$/.exec(word)
    if (!found) return []
    return [{ tag: found[2]!, value: found[1] ? 0 : found[3] === undefined ? 1 : Number(found[3]) }]
  })
}

/** Whether a feature is at work; of several words about one the last counts. */
export const hasFeature = (words: string, tag: string): boolean =>
  (readFeatures(words)
    .filter((one) => one.tag === tag)
    .at(-1)?.value ?? (STANDARD.includes(tag) ? 1 : 0)) > 0

/** The text with a feature switched on or off; all others stay as they are. */
export function toggleFeature(words: string, tag: string): string {
  const on = !hasFeature(words, tag)
  const rest = words.split(/[\s,]+/).filter((word) => word !== '' && !readFeatures(word).some((one) => one.tag === tag))
  const own = on === STANDARD.includes(tag) ? [] : [on ? tag : `-${tag}`]
  return [...rest, ...own].join(' ')
}
