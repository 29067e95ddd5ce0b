import type { Deferral } from './WaitsPick.vue'

/** Whether enough is said of what a job waits for: a date or an odometer has to be named. */
export const named = (d: Deferral) => !['date', 'odometer'].includes(d.waits_for) || Boolean(d.until?.trim())
