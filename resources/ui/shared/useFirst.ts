import { onScopeDispose, ref, watch, type Ref } from 'vue'

/**
 * How many of a long list are on the page: the first so many, and more as its end comes near. The mark stands behind the
 * last row; what is listed anew begins from the top again.
 */
export function useFirst(total: () => number, mark: Ref<Element | null>, step = 150): Ref<number> {
  const first = ref(step)
  const observer =
    typeof IntersectionObserver === 'undefined'
      ? null
      : new IntersectionObserver(
          (entries) => {
            if (entries.some((one) => one.isIntersecting)) more()
          },
          { rootMargin: '1200px' },
        )

  function more(): void {
    if (first.value < total()) first.value += step
  }
  watch(total, () => (first.value = step))
  watch(mark, (now, before) => {
    if (before !== null) observer?.unobserve(before)
    if (now !== null) observer?.observe(now)
  })
  // Seen once it is in sight, it is not seen again until it has moved: what was added may not have filled the page.
  watch(
    first,
    () => {
      if (mark.value !== null) {
        observer?.unobserve(mark.value)
        observer?.observe(mark.value)
      }
    },
    { flush: 'post' },
  )
  onScopeDispose(() => observer?.disconnect())

  return first
}
