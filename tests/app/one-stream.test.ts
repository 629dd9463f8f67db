import { beforeEach, describe, expect, test } from '@jest/globals'
import type { Tab, TabHears } from '~/composables/one-stream'
import { OneStream, SAID_AGAIN } from '~/composables/one-stream'
import { hearOfRenders } from '~/composables/render-stream'
import { Connections, page } from './stand-in'

// A browser has six connections to a server: seven tabs of the press room must not keep them all.

let now = 0
const stream = () =>
  new OneStream(
    () => new EventSource('/events'),
    ['render', 'gone'],
    () => now,
  )
const tab = () => {
  const heard: TabHears[] = []
  return { heard, postMessage: (message: TabHears) => void heard.push(message) } satisfies Tab & { heard: TabHears[] }
}

beforeEach(() => {
  now = 0
  Connections.reset()
})

describe('one stream for all tabs', () => {
  test('is opened by the first that looks, told to all that look, and closed with the last', () => {
    const one = stream()
    const tabs = Array.from({ length: 7 }, tab)
    expect(Connections.open).toHaveLength(0)
    for (const each of tabs) one.says(each, 'shown')
    expect(Connections.all).toHaveLength(1)
    Connections.open[0]!.happen('open')
    Connections.open[0]!.happen('render', '{"id":"a"}')
    for (const { heard } of tabs) expect(heard).toEqual([{ open: true }, { event: 'render', data: '{"id":"a"}' }])
    for (const each of tabs.slice(1)) one.says(each, 'hidden')
    Connections.open[0]!.happen('gone', 'a')
    expect(tabs.map(({ heard }) => heard.length)).toEqual([3, 2, 2, 2, 2, 2, 2])
    one.says(tabs[0]!, 'hidden')
    expect(Connections.open).toHaveLength(0)
  })

  test('a tab that comes when it is open is told so at once, and asks for what it has not seen', () => {
    const one = stream()
    const [first, second] = [tab(), tab()]
    one.says(first, 'shown')
    one.says(second, 'shown')
    expect(second.heard).toEqual([])
    Connections.open[0]!.happen('open')
    one.says(first, 'hidden')
    one.says(first, 'shown')
    one.says(second, 'shown')
    expect([first.heard, second.heard]).toEqual([[{ open: true }, { open: true }], [{ open: true }]])
    expect(Connections.all).toHaveLength(1)
  })

  test('a tab that fell is missed: it keeps no connection', () => {
    const one = stream()
    const [fallen, living] = [tab(), tab()]
    one.says(fallen, 'shown')
    one.says(living, 'shown')
    for (let k = 0; k < 4; k++) {
      now += SAID_AGAIN
      one.says(living, 'shown')
      one.sweep()
    }
    Connections.open[0]!.happen('render', '1')
    expect([fallen.heard.length, living.heard.length]).toEqual([0, 1])
    now += 4 * SAID_AGAIN
    one.sweep()
    expect(Connections.open).toHaveLength(0)
  })
})

describe('a tab', () => {
  test('looks while it is seen; where there are no shared workers it has a stream of its own', () => {
    const { hide, show, leave } = page()
    const heard: TabHears[] = []
    const stop = hearOfRenders((message) => heard.push(message))
    Connections.open[0]!.happen('render', '1')
    hide()
    expect(Connections.open).toHaveLength(0)
    show()
    Connections.open[0]!.happen('gone', '2')
    leave()
    expect(Connections.open).toHaveLength(0)
    show()
    stop()
    expect(Connections.open).toHaveLength(0)
    expect(heard).toEqual([
      { event: 'render', data: '1' },
      { event: 'gone', data: '2' },
    ])
  })
})
