/** A card's name as a file name: letters, digits and single hyphens. */
export function fileStem(name: string): string {
  const plain = name
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .replace(/[^\p{L}\p{N}]+/gu, '-')
    .slice(0, 80)
    .replace(/^-|-$/g, '')
    .toLowerCase()
  return plain || 'card'
}
