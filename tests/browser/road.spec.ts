import type { GroupPiece, TypePiece } from '../../core/card/schema'
import { expect, pixels, savedCard, shown, test } from './bench-page'

test('a new user makes a lower third from nothing, saves its look as a seal, presses it, and renders it', async ({
  page,
}) => {
  await page.goto('/')
  await page.getByRole('button', { name: 'New card', exact: true }).click()
  const sheet = page.getByRole('region', { name: 'New card' })
  await sheet.getByRole('button', { name: 'Empty card' }).click()
  const making = sheet.getByRole('form', { name: 'Empty card' })
  await making.getByLabel('Name').fill('Ferryman')
  await making.getByLabel('Loop, seconds').fill('1')
  await making.getByRole('button', { name: 'Make the card' }).click()
  await shown(page)
  const id = page.url().split('/').at(-1)!
  // A low ribbon, with nothing moving yet, leaves its button where it can be pressed.
  await expect(page.getByRole('button', { name: 'Play the loop' })).toBeInViewport({ ratio: 1 })

  // A bar, drawn on the stage.
  await page.getByRole('button', { name: 'Add a piece' }).click()
  await page.getByRole('menuitem', { name: 'Draw box' }).click()
  const stage = (await page.locator('svg.handles').boundingBox())!
  const at = (x: number, y: number) => [stage.x + stage.width * x, stage.y + stage.height * y] as const
  await page.mouse.move(...at(0.08, 0.7))
  await page.mouse.down()
  await page.mouse.move(...at(0.6, 0.9), { steps: 8 })
  await page.mouse.up()
  await expect(page.getByRole('textbox', { name: 'Box · width' })).toBeVisible()

  // Two lines of type.
  for (const [wording, size, y] of [
    ['Isolde Brook', '90', '800'],
    ['Ferryman of Oxbow Quay', '46', '900'],
  ]) {
    await page.getByRole('button', { name: 'Add a piece' }).click()
    await page.getByText('Words in a font').click()
    await page.getByRole('textbox', { name: 'Wording' }).fill(wording!)
    const set = async (name: string, value: string) => {
      const field = page.getByRole('textbox', { name: new RegExp(`· ${name}$`) })
      await field.fill(value)
      await field.press('Enter')
    }
    await set('size', size!)
    await set('x', '640+5*2')
    await set('y', y!)
  }

  // Three coats on the first line, saved as a seal.
  await page.locator('.piece .body', { hasText: 'Isolde Brook' }).last().click()
  for (const coat of ['Stroke, outside', 'Glow, outside', 'Bevel, inside']) {
    await page.getByRole('button', { name: 'Pour, form or finish' }).click()
    await page.getByRole('menuitem', { name: coat, exact: true }).click()
  }
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: 'Save as seal' }).click()
  const saving = page.getByRole('form', { name: 'Save as a seal' })
  await saving.getByLabel('Name of the seal').fill('Ferry glow')
  await saving.getByLabel('Tags, with commas').fill('river, title')
  await saving.getByRole('button', { name: 'Save seal' }).click()
  await expect(page.getByText('“Ferry glow” is among the seals.')).toBeVisible()

  // Pressed on the second line by its tag.
  await page.locator('.piece .body', { hasText: 'Ferryman of Oxbow Quay' }).click()
  await page.getByRole('button', { name: 'Press a seal' }).click()
  await page.getByLabel('Find a seal').fill('river')
  await page.getByRole('button', { name: 'Press Ferry glow', exact: true }).click()
  const card = await savedCard(page, id)
  const [second, first, bar] = card.pieces as [TypePiece, TypePiece, TypePiece]
  expect([second.wording, first.wording, bar.kind]).toEqual(['Ferryman of Oxbow Quay', 'Isolde Brook', 'box'])
  expect(second.x).toBe(650)
  expect(second.coats.face.map(({ kind }) => kind)).toEqual(['bevel', 'fill', 'stroke'])
  expect(second.coats.behind.map(({ kind }) => kind)).toEqual(['glow'])
  // The seal is kept in %: the same share of a smaller line.
  expect(second.coats.face[2]!.width).toMatchObject({ unit: '%' })
  expect(second.seal).toEqual(first.seal)

  const look = await pixels(page)
  await page.reload()
  await shown(page)
  await expect.poll(() => pixels(page)).toBe(look)
  expect(await savedCard(page, id)).toEqual(card)

  await page.getByRole('button', { name: 'Render with transparency' }).click()
  const form = page.getByRole('form', { name: 'Render' })
  await form.getByRole('radio', { name: 'PNG sequence' }).click()
  await form.getByLabel('Last frame').fill('4')
  await form.getByRole('button', { name: 'Start the render' }).click()
  const item = page.locator('article.item', { hasText: 'Ferryman' })
  await expect(item).toHaveAttribute('data-status', 'done', { timeout: 60_000 })
})

test('several pieces: chosen on the stage, aligned, grouped, moved as one, taken apart', async ({ page }) => {
  const { openCard } = await import('./bench-page')
  const { coat, emptyCard, solid, withBox } = await import('../support/engine')
  const box = (card: ReturnType<typeof emptyCard>, n: number, x: number, y: number) =>
    withBox(
      card,
      { id: `box-${n}`, name: `Box ${n}`, x, y, width: 120, height: 80 },
      {
        face: [coat('fill', `fill-${n}`, { paint: solid('#F2A33C') })],
      },
    )
  const id = await openCard(page, box(box({ ...emptyCard(960, 540, 50), name: 'Several' }, 1, 200, 150), 2, 500, 300))
  const stage = (await page.locator('svg.handles').boundingBox())!
  const zoom = stage.width / 960
  const at = (x: number, y: number) => [stage.x + x * zoom, stage.y + y * zoom] as const

  // A box drawn around both.
  await page.mouse.move(...at(60, 60))
  await page.mouse.down()
  await page.mouse.move(...at(640, 400), { steps: 6 })
  await page.mouse.up()
  await expect(page.getByRole('heading', { name: '2 pieces' })).toBeVisible()
  await page.getByLabel('Align to').selectOption('selection')
  await page.getByRole('button', { name: 'Align: left edges' }).click()
  expect((await savedCard(page, id)).pieces.map(({ x }) => x)).toEqual([200, 200])

  // One value for both.
  const rotation = page.getByRole('textbox', { name: /· rotation$/ })
  await rotation.fill('15')
  await rotation.press('Enter')
  expect((await savedCard(page, id)).pieces.map((piece) => piece.rotation)).toEqual([15, 15])

  await page.keyboard.press('Control+g')
  const grouped = (await savedCard(page, id)).pieces[0] as GroupPiece
  expect(grouped.pieces).toHaveLength(2)
  await page.mouse.move(...at(200, 150))
  await page.mouse.down()
  await page.keyboard.down('Control')
  await page.mouse.move(...at(300, 200), { steps: 8 })
  await page.mouse.up()
  await page.keyboard.up('Control')
  const moved = (await savedCard(page, id)).pieces[0] as GroupPiece
  expect(Number(moved.x) - Number(grouped.x)).toBeCloseTo(100, -1)
  expect(moved.pieces).toEqual(grouped.pieces)

  // A double click goes inside; the group is taken apart again.
  await page.mouse.dblclick(...at(300, 200))
  await expect(page.getByText(/Inside Group/)).toBeVisible()
  await page.getByRole('button', { name: 'Leave the group' }).click()
  await page.keyboard.press('Control+Shift+g')
  expect((await savedCard(page, id)).pieces.map(({ kind }) => kind)).toEqual(['box', 'box'])
})

test('a path is drawn point by point, and its points are edited', async ({ page }) => {
  const { openCard } = await import('./bench-page')
  const { emptyCard } = await import('../support/engine')
  const id = await openCard(page, { ...emptyCard(960, 540, 50), name: 'Path' })
  const stage = (await page.locator('svg.handles').boundingBox())!
  const zoom = stage.width / 960
  const at = (x: number, y: number) => [stage.x + x * zoom, stage.y + y * zoom] as const
  await page.getByRole('button', { name: 'Add a piece' }).click()
  await page.getByRole('menuitem', { name: 'Draw path' }).click()
  for (const [x, y] of [
    [200, 150],
    [700, 150],
    [700, 400],
    [200, 150],
  ])
    await page.mouse.click(...at(x!, y!))
  const path = async () => ((await savedCard(page, id)).pieces[0] as { path?: string }).path ?? ''
  expect((await path()).match(/[ML]/g)).toHaveLength(3)
  await expect(page.locator('.path .point')).toHaveCount(3)
  // A double click bends the corner; a press on the line adds a point; Delete takes it away.
  await page.mouse.dblclick(...at(700, 150))
  await expect.poll(path).toContain('C')
  await page.mouse.click(...at(450, 275))
  await expect(page.locator('.path .point')).toHaveCount(4)
  await page.keyboard.press('Delete')
  await expect(page.locator('.path .point')).toHaveCount(3)
  await page.keyboard.press('Escape')
  await expect(page.locator('.path .point')).toHaveCount(0)
})

test('a slab dropped on another piece pours its coat there; a coat is poured between two others', async ({ page }) => {
  const { openCard } = await import('./bench-page')
  const { coat, emptyCard, solid, withBox } = await import('../support/engine')
  const fill = (n: number) => coat('fill', `fill-${n}`, { paint: solid('#F2A33C') })
  let card = withBox({ ...emptyCard(960, 540, 50), name: 'Slabs' }, { id: 'lower', name: 'Lower' }, { face: [fill(1)] })
  const face = [coat('bevel', 'bevel-1'), fill(2)]
  card = withBox(card, { id: 'upper', name: 'Upper', y: 200 }, { face })
  const id = await openCard(page, card)
  const kinds = async (n: number) => (await savedCard(page, id)).pieces[n]!.coats.face.map(({ kind }) => kind)

  await page.locator('.slab', { hasText: 'Bevel' }).dragTo(page.locator('.piece', { hasText: 'Lower' }))
  await expect(page.locator('.piece.open')).toContainText('Lower')
  expect(await kinds(1)).toEqual(['bevel', 'fill'])
  expect(await kinds(0)).toEqual(['bevel', 'fill'])

  await page.getByRole('button', { name: 'Pour above Fill' }).click({ force: true })
  await page.getByRole('menuitem', { name: 'Sheen', exact: true }).click()
  expect(await kinds(1)).toEqual(['bevel', 'sheen', 'fill'])
  // Locked, the stage leaves it alone; seen alone, nothing else is there.
  await page.locator('.piece.open').hover()
  await page.getByRole('button', { name: 'Lower, more' }).click()
  await page.getByText('See alone', { exact: true }).click()
  await expect(page.getByText('Alone: Lower')).toBeVisible()
  const alone = await pixels(page)
  await page.getByRole('button', { name: 'Show all' }).click()
  await expect.poll(() => pixels(page)).not.toBe(alone)
  await page.locator('.piece.open').hover()
  await page.getByRole('button', { name: 'Lower, more' }).click()
  await page.getByText('Lock', { exact: true }).click()
  const stage = (await page.locator('svg.handles').boundingBox())!
  await page.mouse.click(stage.x + stage.width / 2, stage.y + stage.height * 0.6)
  await expect(page.getByRole('heading', { name: 'Card', exact: true })).toBeVisible()
})

test('the section’s handles change the lengths that they stand for; one too wide is told of', async ({ page }) => {
  const { openCard } = await import('./bench-page')
  const { coat, emptyCard, solid, withBox } = await import('../support/engine')
  const face = [
    coat('bevel', 'bevel-1', { width: 10 }),
    coat('fill', 'fill-1', { paint: solid('#F2A33C') }),
    coat('stroke', 'stroke-1', { width: 12, paint: solid('#3D0D16') }),
  ]
  const card = withBox({ ...emptyCard(960, 540, 50), name: 'Section' }, { id: 'a', width: 400, height: 60 }, { face })
  const id = await openCard(page, card)
  await page.locator('.slab', { hasText: 'Stroke' }).locator('.body').click()
  const handle = page.getByRole('slider', { name: 'Width on the section' })
  await expect(handle).toHaveAttribute('aria-valuenow', '12')
  const before = await pixels(page)
  const box = (await handle.boundingBox())!
  await page.mouse.move(box.x + 5, box.y + 7)
  await page.mouse.down()
  await page.mouse.move(box.x + 55, box.y + 7, { steps: 6 })
  await page.mouse.up()
  const width = async (n: number) => Number((await savedCard(page, id)).pieces[0]!.coats.face[n]!.width)
  const wide = await width(2)
  expect(wide).toBeGreaterThan(14)
  await expect.poll(() => pixels(page)).not.toBe(before)
  await expect(handle).toHaveAttribute('aria-valuenow', String(wide))
  await handle.focus()
  await page.keyboard.press('ArrowRight')
  expect(await width(2)).toBeCloseTo(wide + 0.5, 6)

  // 60 px high, the box is 30 deep.
  await expect(page.getByText('inner depth 30 px')).toBeVisible()
  await page.locator('.slab', { hasText: 'Bevel' }).locator('.body').click()
  const field = page.getByRole('textbox', { name: /bevel width$/ })
  await field.fill('2*20')
  await field.press('Enter')
  await expect(page.getByText(/is wider than the piece is deep \(30 px\)/)).toBeVisible()
})
