import { useInfiniteQuery } from '@tanstack/vue-query'
import { computed, ref, type Ref } from 'vue'
import { api, type LibraryPage } from '@/api/client'

/**
 * The lines of a workshop's library that carry all the words and hold all the figures typed ("motor, > 1.5 N m"),
 * fetched page by page as the list is walked; by one line of their sheets, where that is said.
 */
export function useLibrary(workshop: Ref<number>, words: Ref<string>, family: Ref<string>, by: Ref<string> = ref('')) {
  const query = useInfiniteQuery({
    queryKey: computed(() => ['library', workshop.value, words.value, family.value, by.value]),
    queryFn: ({ pageParam }) =>
      api.get<LibraryPage>(
        `/api/workshops/${workshop.value}/library?${new URLSearchParams({ words: words.value, family: family.value, by: by.value, from: String(pageParam) })}`,
      ),
    initialPageParam: 0,
    getNextPageParam: (last, pages) => {
      const held = pages.reduce((sum, page) => sum + page.lines.length, 0)

      return last.lines.length > 0 && held < last.total ? held : undefined
    },
    enabled: computed(() => workshop.value > 0),
    placeholderData: (held) => held,
  })
  const lines = computed(() => query.data.value?.pages.flatMap((page) => page.lines) ?? [])
  const total = computed(() => query.data.value?.pages[0]?.total ?? 0)
  const families = computed(() => query.data.value?.pages[0]?.families ?? {})

  /** The figures that were understood, told back. */
  const figures = computed(() => query.data.value?.pages[0]?.figures ?? [])

  /** Still those of the words before: not to be taken by mistake. */
  const stale = computed(() => query.isPlaceholderData.value)

  return { query, lines, total, families, figures, stale }
}
