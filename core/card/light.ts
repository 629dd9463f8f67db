import type { Card } from './schema'
import { LIGHT_PARAMETERS } from './schema'
import type { Moment } from '../values/settled'
import { settleNumber } from '../values/settled'

/** The key light at one moment. */
export const lightOf = ({ light }: Pick<Card, 'light'>, at: Moment) => ({
  azimuth: settleNumber(light.azimuth, at, LIGHT_PARAMETERS.azimuth),
  elevation: settleNumber(light.elevation, at, LIGHT_PARAMETERS.elevation),
})
