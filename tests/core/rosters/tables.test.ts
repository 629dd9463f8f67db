import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { encodingOf } from '#core/rosters/encoding'
import { addColumn, cellOf, setCells, addRows } from '#core/rosters/edit'
import { createRoster, readRoster } from '#core/rosters/roster'
import { readTable } from '#core/rosters/table-in'
import { rosterCsv } from '#core/rosters/table-out'
import { rosterFrom, usesOf } from '#core/rosters/table-to-roster'

const bytes = (text: string) => new TextEncoder().encode(text)
const read = (text: string, said = {}) => readTable(bytes(text), said)
const all = (text: string) => {
  const { headings, rows } = read(text, { header: true })
  return [headings, ...rows]
}

/** RFC 4180, section 2: the numbers are those of its rules. */
describe('CSV as RFC 4180 defines it', () => {
  test.each([
    [
      '1: records on lines',
      'aaa,bbb,ccc\r\nzzz,yyy,xxx\r\n',
      [
        ['aaa', 'bbb', 'ccc'],
        ['zzz', 'yyy', 'xxx'],
      ],
    ],
    [
      '2: the last may have no line break',
      'aaa,bbb,ccc\r\nzzz,yyy,xxx',
      [
        ['aaa', 'bbb', 'ccc'],
        ['zzz', 'yyy', 'xxx'],
      ],
    ],
    [
      '5: quoted',
      '"aaa","bbb","ccc"\r\nzzz,yyy,xxx',
      [
        ['aaa', 'bbb', 'ccc'],
        ['zzz', 'yyy', 'xxx'],
      ],
    ],
    [
      '6: line breaks, commas in quotes',
      '"aaa","b\r\nbb","ccc"\r\nzzz,"y,y",xxx',
      [
        ['aaa', 'b\r\nbb', 'ccc'],
        ['zzz', 'y,y', 'xxx'],
      ],
    ],
    ['7: quotes in quotes', '"aaa","b""bb","ccc"', [['aaa', 'b"bb', 'ccc']]],
  ])('%s', (_rule, text, expected) => expect(all(text)).toEqual(expected))

  test('3: the first line may be a header, and is found to be one or not', () => {
    expect(read('field_name,field_name_2\r\naaa,bbb').form.header).toBe(true)
    expect(read('Name,Role\r\nOdile Marsh,Builder').form.header).toBe(true)
    expect(read('12,4.5\r\n13,6').form.header).toBe(false)
    expect(read('Odile Marsh,10:00:01:00\r\nTam Voss,10:00:09:00').form.header).toBe(false)
    expect(read('Odile,Odile\r\nTam,Voss').form.header).toBe(false)
  })
})

describe('awkward files', () => {
  const utf16 = (text: string, big: boolean) => {
    const out = new Uint8Array(text.length * 2)
    const view = new DataView(out.buffer)
    for (let i = 0; i < text.length; i++) view.setUint16(i * 2, text.charCodeAt(i), !big)
    return out
  }
  const expected = [
    ['Name', 'Ort'],
    ['Märta Öst', 'Bräu, 2'],
  ]
  const text = 'Name;Ort\r\nMärta Öst;"Bräu, 2"\r\n'
  const files: [string, Uint8Array, string][] = [
    ['UTF-8', bytes(text), 'utf-8'],
    ['UTF-8 with a byte order mark', bytes(`\uFEFF${text}`), 'utf-8'],
    ['UTF-16 with a mark', utf16(`\uFEFF${text}`, false), 'utf-16le'],
    ['UTF-16, the other way round', utf16(`\uFEFF${text}`, true), 'utf-16be'],
    ['UTF-16 without a mark', utf16(text, false), 'utf-16le'],
    ['UTF-16, the other way round, without a mark', utf16(text, true), 'utf-16be'],
    ['Windows-1252', Uint8Array.from([...text].map((c) => c.charCodeAt(0))), 'windows-1252'],
  ]
  test.each(files)('%s', (_name, file, encoding) => {
    expect(encodingOf(file)).toBe(encoding)
    const { headings, rows, form } = readTable(file)
    expect([headings, ...rows]).toEqual(expected)
    expect(form).toEqual({ encoding, delimiter: ';', header: true })
  })

  test('tabs as a spreadsheet copies them, empty lines, cells that are missing', () => {
    const { form, rows, notes } = read('Name\tRole\r\nOdile Marsh\r\n\r\nTam Voss\tPilot\r\n')
    expect(form.delimiter).toBe('\t')
    expect(rows).toEqual([
      ['Odile Marsh', ''],
      ['Tam Voss', 'Pilot'],
    ])
    expect(notes).toEqual(['1 row has fewer cells than headings: they stay empty.'])
  })

  test('a quotation mark that is never closed is told', () => {
    expect(read('Name,Role\r\n"Odile,Builder\r\nTam,Pilot').notes[0]).toMatch(/quotation mark/)
  })

  test('20,000 rows, and what is empty or too large', () => {
    const many = Array.from({ length: 20_000 }, (_, i) => `Name ${i},"Role, ${i}"`).join('\n')
    const { rows } = read(`Name,Role\n${many}`)
    expect(rows).toHaveLength(20_000)
    expect(rows[19_999]).toEqual(['Name 19999', 'Role, 19999'])
    expect(() => read(' \r\n ')).toThrow(/no rows/)
    expect(() => read(`Name\n${'x\n'.repeat(50_001)}`)).toThrow(/50001 rows/)
  })

  test('JSON: objects, lists, and what is no table', () => {
    expect(all('[{"Name":"Odile","No":7},{"Role":"Pilot","Name":"Tam","On":true}]')).toEqual([
      ['Name', 'No', 'Role', 'On'],
      ['Odile', '7', '', ''],
      ['Tam', '', 'Pilot', 'true'],
    ])
    expect(all('[["Name","Role"],["Odile",null]]')).toEqual([
      ['Name', 'Role'],
      ['Odile', ''],
    ])
    expect(() => read('{"a": 1}')).toThrow(/no table/)
    expect(() => read('[{"Name": ')).toThrow(/not valid JSON/)
  })
})

describe('from a table to a roster', () => {
  test('what every row has is known by its heading; two columns of one name are told apart and told', () => {
    const table = read('Row,In,Out,Name,Name,Notes,On\r\n01,1:00,9:00,Odile,Marsh,twice,no')
    const { roster, notes } = rosterFrom('Crew', table, usesOf(table))
    expect(roster.columns.map(({ name }) => name)).toEqual(['Name', 'Name 2'])
    expect(notes).toEqual(['Two columns are called “Name”: the later one is “Name 2” now.'])
    expect(roster.rows[0]).toMatchObject({ name: '01', in: '1:00', out: '9:00', note: 'twice', on: false })
    expect(readRoster(JSON.parse(JSON.stringify(roster))).faults).toBeNull()
  })

  test('without headings the columns are the fields of the card in their order', () => {
    const table = readTable(bytes('Odile Marsh,7\r\nTam Voss,8'), {}, [{ label: 'Name' }, { label: 'Number' }])
    const fields = [{ label: 'Name' }, { label: 'Number' }]
    expect(usesOf(table, fields)).toEqual([
      { to: 'column', heading: 'Name' },
      { to: 'column', heading: 'Number' },
    ])
    expect(rosterFrom('', table, usesOf(table, fields)).roster.rows).toHaveLength(2)
  })

  test('a field of the card that is called like what every row has is the field’s', () => {
    const table = read('Note,Name\r\nC sharp,Odile')
    expect(usesOf(table, [{ label: 'note' }])[0]).toEqual({ to: 'column', heading: 'Note' })
  })
})

test('what is written as CSV comes in again as it was, whatever the cells say', () => {
  // Spaces alone are an empty line to every reader; a lone carriage return ends a row for many.
  const cell = fc.string({ unit: 'grapheme', maxLength: 12 }).map((text) => text.replace(/\r/g, ''))
  fc.assert(
    fc.property(fc.array(fc.tuple(cell, cell, fc.boolean()), { minLength: 1, maxLength: 8 }), (rows) => {
      let { roster } = addColumn(createRoster('Test'), 'Name')
      roster = addColumn(roster, 'Role').roster
      roster = addRows(roster, rows.length).roster
      const changes = rows.flatMap(([a, b, on], i) => [
        { row: roster.rows[i]!.id, column: roster.columns[0]!.id, text: `x${a}` },
        { row: roster.rows[i]!.id, column: roster.columns[1]!.id, text: b },
        { row: roster.rows[i]!.id, column: ':on', text: on ? 'on' : 'off' },
      ])
      roster = setCells(roster, changes)
      const table = read(rosterCsv(roster), { header: true, delimiter: ',' })
      const back = rosterFrom('Test', table, usesOf(table)).roster
      const cells = (one: typeof roster) =>
        one.rows.map((row) => [...one.columns.map(({ id }) => cellOf(row, id)), cellOf(row, ':on')])
      expect(cells(back)).toEqual(cells(roster))
    }),
  )
})
