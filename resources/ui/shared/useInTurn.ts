/** One after the other: what is picked while another is on its way starts from what that left. */
export function useInTurn() {
  let before: Promise<unknown> = Promise.resolve()

  return function inTurn<T>(work: () => Promise<T>): Promise<T> {
    const next = before.then(work)
    before = next.catch(() => undefined)

    return next
  }
}
