import type { FieldKind } from '../../card/fields'
import { choiceField } from './choice'
import { colour } from './colour'
import type { FieldKindDefinition } from './definition'
import { hold } from './hold'
import { number } from './number'
import { pictureField } from './picture'
import { switchField } from './switch'
import { variantField } from './variant'
import { wording } from './wording'

export const FIELD_DEFINITIONS: readonly FieldKindDefinition[] = [
  wording,
  colour,
  number,
  switchField,
  choiceField,
  pictureField,
  variantField,
  hold,
]

export const fieldKind = (kind: FieldKind): FieldKindDefinition =>
  FIELD_DEFINITIONS.find((definition) => definition.kind === kind)!
