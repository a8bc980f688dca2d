/** What the device keeps, by name. */
export const shell = 'magpie-shell'
export const answers = 'magpie-answers'
export const pictures = 'magpie-pictures'

/** Forgets what was read of other people's builds: whoever signs in next shall not find it. */
export async function forgetAnswers(): Promise<void> {
  if ('caches' in window) await Promise.all([answers, pictures].map((name) => caches.delete(name)))
}
