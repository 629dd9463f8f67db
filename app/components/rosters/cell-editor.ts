import type { Editor } from 'tabulator-tables'

/** Writes a cell: Enter keeps it, Alt and Enter begin another line, Escape leaves it as it was. */
export const cellEditor: Editor = (cell, onRendered, success, cancel) => {
  const before = String(cell.getValue() ?? '')
  const field = document.createElement('textarea')
  field.value = before
  field.setAttribute('aria-label', String(cell.getColumn().getDefinition().title || 'Cell'))
  const keep = () => {
    if (field.value === before) cancel(before)
    else success(field.value)
  }
  field.addEventListener('blur', keep)
  field.addEventListener('keydown', (event) => {
    if (event.key === 'Escape') cancel(before)
    else if (event.key === 'Enter') {
      event.preventDefault()
      if (event.altKey) field.setRangeText('\n', field.selectionStart, field.selectionEnd, 'end')
      else keep()
    } else if (event.key !== 'Tab') event.stopPropagation()
  })
  onRendered(() => {
    field.focus({ preventScroll: true })
    field.select()
  })
  return field
}
