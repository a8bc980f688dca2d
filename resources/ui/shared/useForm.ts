import { ref } from 'vue'
import { Problem, reasonOf } from '@/api/client'

/** A form on its way: whether it is being sent, and why it was refused, field by field or as a whole. */
export function useForm() {
  const busy = ref(false)
  const refused = ref<Problem | null>(null)
  const all = ref('')
  const at = (field: string) => refused.value?.at(`/${field}`)

  /** True when it was taken. */
  async function send(work: () => Promise<unknown>): Promise<boolean> {
    busy.value = true
    clear()
    try {
      await work()

      return true
    } catch (error) {
      refused.value = error instanceof Problem ? error : null
      all.value = error instanceof Problem && error.body.errors !== undefined ? '' : reasonOf(error)

      return false
    } finally {
      busy.value = false
    }
  }
  function clear(): void {
    refused.value = null
    all.value = ''
  }

  return { busy, all, at, send, clear }
}
