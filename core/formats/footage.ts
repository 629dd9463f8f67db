/** Moving footage that ships with the application, to lay titles over; all of it is a loop. Made by rule: `npm run footage`. */
export const FOOTAGE = [
  { id: 'dusk-water', label: 'Dusk water with lights' },
  { id: 'bright-fog', label: 'Bright fog' },
  { id: 'crowd-lights', label: 'Crowd lights' },
] as const

export type FootageId = (typeof FOOTAGE)[number]['id']
