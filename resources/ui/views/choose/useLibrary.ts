import { useInfiniteQuery } from '@tanstack/vue-query'
import { computed, type Ref } from 'vue'
import { api, type LibraryPage } from '@/api/client'

/** The lines of a workshop's library that carry all the words, fetched page by page as the list is walked. */
export function useLibrary(workshop: Ref<number>, words: Ref<string>, family: Ref<string>) {
  const query = useInfiniteQuery({
    queryKey: computed(() => ['library', workshop.value, words.value, family.value]),
    queryFn: ({ pageParam }) =>
      api.get<LibraryPage>(
        `/api/workshops/${workshop.value}/library?${new URLSearchParams({ words: words.value, family: family.value, from: String(pageParam) })}`,
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

  return { query, lines, total, families }
}
