/** What the device keeps, by name. */
export const shell = 'magpie-shell'
export const answers = 'magpie-answers'
export const pictures = 'magpie-pictures'

/** When a build was last laid on this device whole, by its number. */
export const laid = new Map<number, number>()

/** Forgets what was read of other people's builds: whoever signs in next shall not find it. */
export async function forgetAnswers(): Promise<void> {
  laid.clear()
  if ('caches' in window) await Promise.all([answers, pictures].map((name) => caches.delete(name)))
}
