import type { CellComponent, ColumnDefinition } from 'tabulator-tables'
import type { CardField } from '#core/card/fields'
import { colourIn } from '#core/rosters/kinds/colour'
import type { Match } from '#core/rosters/matching'
import type { Roster, RosterColumn, RosterRow } from '#core/rosters/roster'
import { cellEditor } from './cell-editor'

// The columns of the grid, made from the roster and from what fills which field.

/** A row as the grid has it: its id, what every row has under `:name` and so on, and its cells by their columns. */
export type GridRow = Record<string, string | boolean>

export const gridRow = ({ id, cells, name, on, note, in: from, out }: RosterRow): GridRow => ({
  ...cells,
  ...{ id, ':name': name, ':on': on, ':note': note, ':in': from, ':out': out },
})

/** The least width of columns, by what they fill, in px. */
const LEAST_WIDTH: Readonly<Record<string, number>> = { wording: 160, colour: 112 }

/** Small pictures of rows, in px. */
export const THUMB = { width: 200, height: 52 }

/** What is done with a column. */
export type ColumnDeed = 'rising' | 'falling' | 'rename' | 'remove' | 'left' | 'right'

export interface GridHooks {
  /** What is to be said of a cell; null for nothing. */
  saidOf(row: string, column: string): { text: string; bad: boolean } | null
  /** A cell of the page's own, for a row: its picture, what was found. */
  draw(kind: 'picture' | 'flags', row: string): HTMLElement
  /** File names of pictures that can be named. */
  pictures(): string[]
  menu(column: RosterColumn): { label: string; action: () => void; disabled?: boolean }[]
}

/** Text with what is wrong with it as its title. */
function shownText(hooks: GridHooks, field: CardField | null) {
  return (cell: CellComponent): HTMLElement => {
    const text = String(cell.getValue() ?? '')
    const id = String(cell.getRow().getData().id)
    const said = hooks.saidOf(id, cell.getField())
    const element = cell.getElement()
    element.classList.toggle('faulty', said?.bad === true)
    element.classList.toggle('noted', said?.bad === false)
    element.title = said?.text ?? ''
    const shown = document.createElement('span')
    shown.className = 'cell-text'
    const colour = field?.kind === 'colour' ? colourIn(text) : null
    if (colour) {
      const swatch = document.createElement('i')
      swatch.style.background = colour
      shown.append(swatch)
    }
    shown.append(text)
    return shown
  }
}

/** On or off, as a mark and as a word for who does not see it. */
const shownSwitch = (cell: CellComponent): HTMLElement => {
  const shown = document.createElement('span')
  shown.className = cell.getValue() ? 'switch on' : 'switch'
  shown.setAttribute('role', 'img')
  shown.setAttribute('aria-label', cell.getValue() ? 'on' : 'off')
  return shown
}

const heading = (column: RosterColumn, field: CardField | null) => () => {
  const title = document.createElement('span')
  title.className = field ? 'fills' : 'idle'
  title.title = field ? `Fills the field “${field.label}”` : 'Fills no field of this card'
  title.textContent = column.name
  return title
}

/** Columns of the roster, then what every row has. */
export function gridColumns({ columns }: Roster, matches: readonly Match[], hooks: GridHooks): ColumnDefinition[] {
  const plain = { headerSort: false, resizable: true, editor: cellEditor, vertAlign: 'middle' as const }
  const fieldOf = (id: string) => matches.find(({ column }) => column?.id === id)?.field ?? null
  const own = (field: string, title: string, width: number, tip: string): ColumnDefinition => ({
    ...{ ...plain, field, title, width, headerTooltip: tip },
    formatter: shownText(hooks, null),
  })
  const drawn = (kind: 'picture' | 'flags', title: string, width: number): ColumnDefinition => ({
    ...{
      title,
      width,
      headerSort: false,
      resizable: kind === 'flags',
      vertAlign: 'middle' as const,
      field: `:${kind}`,
    },
    ...{
      clipboard: false,
      cssClass: `drawn ${kind}`,
      formatter: (cell) => hooks.draw(kind, String(cell.getRow().getData().id)),
    },
  })
  return [
    drawn('picture', '', THUMB.width + 14),
    {
      ...{ field: ':on', title: 'On', width: 46, headerSort: false, resizable: false, hozAlign: 'center' },
      ...{
        vertAlign: 'middle',
        headerTooltip: 'Whether the row is rendered',
        formatter: shownSwitch,
        editor: 'tickCross',
      },
    },
    ...columns.map((column): ColumnDefinition => {
      const field = fieldOf(column.id)
      const isPicture = field?.kind === 'picture'
      return {
        ...{
          ...plain,
          field: column.id,
          title: column.name,
          minWidth: LEAST_WIDTH[field?.kind ?? ''] ?? 84,
          widthGrow: field?.kind === 'wording' ? 2 : 1,
        },
        titleFormatter: heading(column, field),
        formatter: shownText(hooks, field),
        headerMenu: () => hooks.menu(column),
        ...(isPicture
          ? {
              editor: 'list' as const,
              editorParams: () => ({ values: hooks.pictures(), autocomplete: true, freetext: true, listOnEmpty: true }),
            }
          : {}),
      }
    }),
    drawn('flags', 'Found', 104),
    own(':in', 'In', 96, 'Where it begins in the programme, as timecode; empty for none'),
    own(':out', 'Out', 96, 'Where it ends in the programme; empty for the length of the card'),
    own(':name', 'File', 120, 'What its files are called after; empty for its first words'),
    own(':note', 'Note', 130, 'For people; it is in no file'),
  ]
}
