import { expect, test } from '@jest/globals'
import { broughtIn, knownPicture } from '~/stores/pictures'

test('a picture is known by its id or its file name, whatever its case; of one name the newest', () => {
  const picture = (id: string, fileName: string) => ({ id, fileName, width: 4, height: 3 })
  const list = [picture('new', 'Boat.PNG'), picture('old', 'boat.png'), picture('other', 'quay.jpg')]
  expect(knownPicture(list, 'boat.png')?.id).toBe('new')
  expect(knownPicture(list, 'BOAT.png')?.id).toBe('new')
  expect(knownPicture(list, 'old')?.id).toBe('old')
  expect(knownPicture(list, 'QUAY.JPG')?.id).toBe('other')
  expect(knownPicture(list, 'Old')).toBeNull()
  expect(broughtIn(list).picture('other')).toBe(list[2])
})
