import { execFileSync, spawn } from 'node:child_process'
import { once } from 'node:events'
import { mkdtempSync, readdirSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { basename, join } from 'node:path'
import type { Page } from '@playwright/test'
import { coat, demoCard, emptyCard, solid, withType } from '../support/engine'
import { expect, openCard, test } from './bench-page'
import { item, startRender } from './press-hand'

const folder = mkdtempSync(join(tmpdir(), 'wax-press-'))
test.afterAll(() => rmSync(folder, { recursive: true, force: true }))

type Row = { id: string; attempts: number; report: { passed: boolean }; workers: string[] }
const rows = async (page: Page) => (await (await page.request.get('/api/renders')).json()) as Row[]

/** A render that is long enough to be caught at work. */
function longCard() {
  const x = {
    keys: [
      { frame: 0, value: 300 },
      { frame: 1000, value: 1600 },
    ],
  }
  const behind = [coat('shadow', 'h', { softness: 120, firmness: 20 })]
  const face = [coat('fill', 'f', { paint: solid('#F2A33C') }), coat('stroke', 's', { width: 9 })]
  return {
    ...withType(emptyCard(1920, 1080, 2000), { wording: 'Long', size: 400, x }, { face, behind }),
    name: 'A long one',
  }
}

test('what the checks found is a click away; the same again with other options', async ({ page }) => {
  await openCard(page, { ...demoCard('02-lower-third'), name: 'Press test · again' })
  await startRender(page, { format: 'ProRes 4444', first: 10, last: 14 })
  await expect(item(page)).toHaveAttribute('data-status', 'done', { timeout: 80_000 })
  await item(page).getByRole('button', { name: 'Transparency verified' }).click()
  const checks = page.getByRole('region', { name: 'Checks' })
  await expect(checks.locator('[data-check=frames]')).toContainText('5')
  await expect(checks.locator('[data-check=tags]')).toContainText('BT.709, video levels')
  await checks.getByRole('button', { name: 'Close' }).click()
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    item(page)
      .getByRole('link', { name: /Download/ })
      .click(),
  ])
  const path = join(folder, 'third.mov')
  await download.saveAs(path)
  const probed = execFileSync(
    'ffprobe',
    ['-v', 'error', '-show_entries', 'stream=pix_fmt,codec_tag_string', '-of', 'csv=p=0', path],
    { encoding: 'utf8' },
  )
  expect(probed.trim()).toMatch(/^ap4h,yuva444p1[02]le$/)
  await item(page).getByRole('button', { name: /more$/ }).click()
  await page.getByRole('listitem').filter({ hasText: 'Again with other options' }).click()
  const form = page.getByRole('form', { name: 'Render' })
  await expect(form.getByRole('radio', { name: 'ProRes 4444' })).toBeChecked()
  await expect(form.getByLabel('First frame')).toHaveValue('10')
  await form.getByRole('radio', { name: 'Still' }).click()
  await form.getByRole('button', { name: 'Start the render' }).click()
  await expect(item(page)).toContainText('Still')
  await expect(item(page)).toHaveAttribute('data-status', 'done', { timeout: 60_000 })
  await page.getByLabel('Order of the renders').selectOption('by card')
  await expect(page.getByRole('region', { name: 'Press test · again' }).locator('article')).toHaveCount(2)
  await page.getByLabel('Order of the renders').selectOption('newest first')
})

test('fill and key of a wished length: two files and their sidecar, by which they are known again', async ({
  page,
}) => {
  await openCard(page, { ...demoCard('02-lower-third'), name: 'Press test · pair' })
  await page.getByRole('button', { name: 'Render with transparency' }).click()
  const form = page.getByRole('form', { name: 'Render' })
  await form.getByRole('radio', { name: 'Review copy' }).click()
  await expect(form.getByRole('heading')).toHaveText('Render without transparency')
  await form.getByRole('radio', { name: 'GIF' }).click()
  await expect(form).toContainText('a pixel is clear or solid')
  await form.getByRole('radio', { name: 'Fill and key' }).click()
  await form.getByLabel('Key range').selectOption('Full')
  await form.getByLabel('Timecode at the start').fill('10:00:00:00')
  // The hold of this card is played again until it comes nearest to eight seconds.
  await form.getByLabel('or a length').fill('8:00')
  await form.getByLabel('or a length').press('Tab')
  await expect(form.getByLabel('Holds')).not.toHaveValue('1')
  await form.getByRole('button', { name: 'In', exact: true }).click()
  await form.getByLabel('Last frame').fill('14')
  await form.getByLabel('Size').selectOption('50 %, 960×540')
  await form.getByLabel('File name').fill('{card}_{take}')
  await expect(form).toContainText(/press-test-pair_\d\d-fill\.mov, press-test-pair_\d\d-key\.mov/)
  await form.getByRole('button', { name: 'Start the render' }).click()
  await expect(item(page)).toHaveAttribute('data-status', 'done', { timeout: 60_000 })
  const paths: string[] = []
  for (const what of [/Download fill/, /Download key/, /Sidecar/]) {
    await item(page).getByRole('button', { name: /more$/ }).click()
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('listitem').filter({ hasText: what }).click(),
    ])
    paths.push(join(folder, download.suggestedFilename()))
    await download.saveAs(paths.at(-1)!)
  }
  expect(paths.map((path) => basename(path))).toEqual([
    expect.stringMatching(/^press-test-pair_\d\d-fill\.mov$/),
    expect.stringMatching(/^press-test-pair_\d\d-key\.mov$/),
    expect.stringMatching(/^press-test-pair_\d\d\.sidecar\.json$/),
  ])
  const [fill, key, sidecar] = paths as [string, string, string]
  const said = execFileSync(process.execPath, ['.wax/node/wax.mjs', 'verify', fill, key, '--against', sidecar], {
    encoding: 'utf8',
  })
  expect(said).toContain('ok   Frames: 15')
  expect(said).toContain('ok   Bytes: the files as they were made')
  expect(said).toContain('ok   Timecode: 10:00:00:00')
})

test('a render of no frames, or beyond the loop, is refused in one clear word', async ({ page }) => {
  await openCard(page, { ...demoCard('02-lower-third'), name: 'Press test · strip' })
  const form = await startRender(page, { format: 'PNG sequence', first: 40, last: 39 })
  await expect(form.getByRole('alert')).toContainText('no frame to render')
  await form.getByLabel('Last frame').fill('150')
  await form.getByRole('button', { name: 'Start the render' }).click()
  await expect(form.getByRole('alert')).toContainText('150 frames')
})

test('a render is cancelled and nothing of it is offered', async ({ page }) => {
  await openCard(page, longCard())
  await startRender(page, { format: 'ProRes 4444' })
  await expect(item(page)).toHaveAttribute('data-status', 'running')
  await item(page).getByRole('button', { name: 'Cancel' }).click()
  await expect(item(page)).toHaveAttribute('data-status', 'cancelled')
  const [row] = await rows(page)
  expect((await page.request.get(`/api/renders/${row!.id}/files/0`)).status()).toBe(404)
  await expect
    .poll(() => readdirSync(`${process.env.WAX_FOLDER}/storage/renders`).filter((name) => name.startsWith(row!.id)))
    .toEqual([])
})

test('the render worker is killed: the render goes on by itself, and no half file is offered', async ({ page }) => {
  await openCard(page, { ...longCard(), length: 36 })
  await startRender(page, { format: 'PNG sequence' })
  await expect(item(page)).toHaveAttribute('data-status', 'running')
  await expect(item(page)).toContainText(/[1-9]\d* of 36 frames rendered/)
  const [row] = await rows(page)
  process.kill(Number(process.env.WAX_WORKER_PID), 'SIGKILL')
  expect((await page.request.get(`/api/renders/${row!.id}/files/0`)).status()).toBe(404)
  await expect(item(page)).toHaveAttribute('data-status', 'done', { timeout: 80_000 })
  const [after] = await rows(page)
  expect(after).toMatchObject({ attempts: 2, report: { passed: true } })
})

test('another machine helps with a token alone; withdrawn, it lets nobody in', async ({ page }) => {
  await openCard(page, { ...longCard(), length: 48 })
  await page.goto('/renders')
  await page.getByRole('button', { name: /worker here/ }).click()
  const sheet = page.getByRole('region', { name: 'Workers' })
  await sheet.getByLabel('Name of the token').fill('Edit suite 2')
  await sheet.getByRole('button', { name: 'Make a token' }).click()
  const token = (await sheet.locator('[data-test=token]').textContent())!
  await expect(sheet.locator('pre')).toContainText(token)
  const far = (secret: string) => {
    const args = ['--server', process.env.WAX_ADDRESS!, '--token', secret, '--name', 'Suite two', '--threads', '1']
    return spawn(process.execPath, ['.wax/node/far-worker.mjs', ...args, '--cache', join(folder, 'cache')])
  }
  const child = far(token)
  try {
    await expect(sheet.locator('[data-place=elsewhere]')).toContainText('Suite two')
    await sheet.getByRole('button', { name: 'Close' }).click()
    await expect(page.getByRole('button', { name: '1 elsewhere' })).toBeVisible()
    await page.getByRole('button', { name: 'New render' }).click()
    await page.getByRole('region', { name: 'New render' }).getByRole('button', { name: 'A long one' }).first().click()
    const form = page.getByRole('form', { name: 'Render' })
    await form.getByRole('radio', { name: 'PNG sequence' }).click()
    await form.getByRole('button', { name: 'Start the render' }).click()
    await expect(item(page)).toContainText('Suite two')
    await expect(item(page)).toHaveAttribute('data-status', 'done', { timeout: 80_000 })
  } finally {
    child.kill('SIGTERM')
  }
  await page.getByRole('button', { name: /worker here/ }).click()
  await sheet.getByRole('button', { name: 'Withdraw Edit suite 2' }).click()
  await expect(sheet.getByRole('button', { name: 'Withdraw Edit suite 2' })).toHaveCount(0)
  const refused = far(token)
  let said = ''
  refused.stderr.on('data', (part) => (said += String(part)))
  const [code] = (await once(refused, 'exit')) as [number]
  expect([code, said]).toEqual([1, expect.stringContaining('not known here')])
})

test('eight tabs of the press room, and the application still answers in the ninth', async ({ page }) => {
  const tabs = await Promise.all(Array.from({ length: 8 }, () => page.context().newPage()))
  for (const tab of tabs) {
    await tab.goto('/renders')
    await tab.getByRole('heading', { name: 'Renders' }).waitFor()
  }
  await openCard(page, { ...demoCard('02-lower-third'), name: 'Press test · tabs' })
  await startRender(page, { format: 'Animated PNG', first: 1, last: 3 })
  // One stream tells all of them.
  for (const tab of tabs) {
    await expect(tab.getByRole('article').filter({ hasText: 'Press test · tabs' })).toHaveAttribute(
      'data-status',
      'done',
      { timeout: 60_000 },
    )
    await tab.close()
  }
})
