import { ref, watch, type Ref } from 'vue'
import { useRoute } from 'vue-router'

/** Whether a form is open, opened by the address too: "?add" from another page stands open on this one. */
export function useAsked(key: string): Ref<boolean> {
  const route = useRoute()
  const open = ref(false)
  watch(
    () => route.fullPath,
    () => (open.value ||= route.query[key] !== undefined),
    { immediate: true },
  )

  return open
}
