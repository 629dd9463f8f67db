import type { Card } from './schema'
import { LIGHT_PARAMETERS } from './schema'
import type { Moment } from '../values/evaluated'
import { numberValue } from '../values/evaluated'

/** The key light at one moment. */
export const lightOf = ({ light }: Pick<Card, 'light'>, at: Moment) => ({
  azimuth: numberValue(light.azimuth, at, LIGHT_PARAMETERS.azimuth),
  elevation: numberValue(light.elevation, at, LIGHT_PARAMETERS.elevation),
})
