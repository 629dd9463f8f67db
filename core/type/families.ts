/** A font that ships with the application, under the SIL Open Font License 1.1. */
export interface ShippedFont {
  /** Named in cards; also the file's name without its ending. */
  id: string
  family: string
  style: string
  kind: 'display' | 'condensed' | 'slab' | 'script' | 'sans' | 'serif'
}

const font = (id: string, family: string, style: string, kind: ShippedFont['kind']): ShippedFont => ({
  id,
  family,
  style,
  kind,
})

export const SHIPPED_FONTS: readonly ShippedFont[] = [
  font('abril-fatface', 'Abril Fatface', 'Regular', 'display'),
  font('bungee', 'Bungee', 'Regular', 'display'),
  font('orbitron-extrabold', 'Orbitron', 'ExtraBold', 'display'),
  font('cinzel-bold', 'Cinzel', 'Bold', 'serif'),
  font('playfair-display-black', 'Playfair Display', 'Black', 'serif'),
  font('playfair-display-bold-italic', 'Playfair Display', 'Bold Italic', 'serif'),
  font('anton', 'Anton', 'Regular', 'condensed'),
  font('barlow-condensed-medium', 'Barlow Condensed', 'Medium', 'condensed'),
  font('barlow-condensed-bold', 'Barlow Condensed', 'Bold', 'condensed'),
  font('bebas-neue', 'Bebas Neue', 'Regular', 'condensed'),
  font('league-gothic', 'League Gothic', 'Regular', 'condensed'),
  font('oswald-semibold', 'Oswald', 'SemiBold', 'condensed'),
  font('alfa-slab-one', 'Alfa Slab One', 'Regular', 'slab'),
  font('zilla-slab-bold', 'Zilla Slab', 'Bold', 'slab'),
  font('great-vibes', 'Great Vibes', 'Regular', 'script'),
  font('lobster', 'Lobster', 'Regular', 'script'),
  font('pacifico', 'Pacifico', 'Regular', 'script'),
  font('archivo-black', 'Archivo Black', 'Regular', 'sans'),
  font('archivo-variable', 'Archivo', 'Variable', 'sans'),
  font('inter-regular', 'Inter', 'Regular', 'sans'),
  font('inter-semibold', 'Inter', 'SemiBold', 'sans'),
  font('montserrat-medium', 'Montserrat', 'Medium', 'sans'),
  font('montserrat-extrabold', 'Montserrat', 'ExtraBold', 'sans'),
  font('recursive-variable', 'Recursive', 'Variable', 'sans'),
]

/** Fonts that people bring get ids made from their contents: the same file, the same id everywhere. */
export const OWN_FONT_ID = /^own-[0-9a-f]{16}$/

export const isShipped = (id: string): boolean => SHIPPED_FONTS.some((shipped) => shipped.id === id)
