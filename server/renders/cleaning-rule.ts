/**
 * The rule by which renders are cleaned away: those that are over and are not kept after so many days, and the frames of those
 * that failed, from which they could go on, after so many hours.
 */
export const CLEANING = { days: 30, hours: 24 } as const

export const CLEANING_WORDS =
  `Renders are cleaned away ${CLEANING.days} days after they were made, unless they are kept. ` +
  `What failed can go on from its finished frames for ${CLEANING.hours} hours; after that it begins anew.`
