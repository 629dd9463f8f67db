import { onScopeDispose, shallowRef } from 'vue'

/** Moving footage under a title: a video that is played beside the title, or sought to a moment. */
export function useFootage() {
  const video = document.createElement('video')
  Object.assign(video, { muted: true, loop: true, playsInline: true, preload: 'auto' })
  /** Seconds that it lasts; null until it is known. */
  const duration = shallowRef<number | null>(null)
  const broken = shallowRef(false)
  let brought: string | null = null

  video.addEventListener('loadedmetadata', () => (duration.value = video.duration))
  video.addEventListener('error', () => {
    if (video.getAttribute('src')) broken.value = true
  })

  function show(source: string) {
    duration.value = null
    broken.value = false
    video.src = source
    video.load()
  }

  const choose = (id: string) => show(`/footage/${id}.webm`)

  /** Footage of the designer's own: it stays in this window. */
  function bring(file: File) {
    if (brought) URL.revokeObjectURL(brought)
    brought = URL.createObjectURL(file)
    show(brought)
  }

  const within = (seconds: number) => (duration.value ? seconds % duration.value : 0)

  /** Plays on from a moment. */
  async function play(seconds: number) {
    video.currentTime = within(seconds)
    await video.play().catch(() => {})
  }

  /** Shows the picture of a moment; resolves when it is there. */
  async function seek(seconds: number): Promise<void> {
    video.pause()
    const wanted = within(seconds)
    if (duration.value === null || Math.abs(video.currentTime - wanted) < 0.001) return
    const there = new Promise<void>((go) => video.addEventListener('seeked', () => go(), { once: true }))
    video.currentTime = wanted
    await there
  }

  onScopeDispose(() => {
    video.pause()
    video.removeAttribute('src')
    if (brought) URL.revokeObjectURL(brought)
  })

  return { video, duration, broken, choose, bring, play, seek }
}
