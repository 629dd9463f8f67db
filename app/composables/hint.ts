/** Milliseconds that a pointer rests before the hint comes. */
const DELAY = 500
const GAP = 8

let bubble: HTMLElement | null = null
let timer: ReturnType<typeof setTimeout> | undefined

/** One bubble for all hints of the page: rows of settings come and go too often to bring a tooltip each. */
function theBubble(): HTMLElement {
  bubble ??= Object.assign(document.createElement('div'), { className: 'hint', hidden: true })
  bubble.setAttribute('role', 'tooltip')
  if (!bubble.isConnected) document.body.append(bubble)
  return bubble
}

export function showHint(target: HTMLElement, text: string, wait = DELAY): void {
  clearTimeout(timer)
  timer = setTimeout(() => {
    const box = theBubble()
    box.textContent = text
    box.hidden = false
    const [at, own] = [target.getBoundingClientRect(), box.getBoundingClientRect()]
    const left = at.left - own.width - GAP
    // To the left of what it is about; below it where there is no room.
    const beside = left >= GAP && at.left > innerWidth / 2
    const x = beside ? left : Math.max(GAP, Math.min(at.left, innerWidth - own.width - GAP))
    const below = at.bottom + GAP + own.height < innerHeight
    const y = beside ? at.top + (at.height - own.height) / 2 : below ? at.bottom + GAP : at.top - own.height - GAP
    Object.assign(box.style, { left: `${x}px`, top: `${Math.max(GAP, y)}px` })
  }, wait)
}

export function hideHint(): void {
  clearTimeout(timer)
  if (bubble) bubble.hidden = true
}
