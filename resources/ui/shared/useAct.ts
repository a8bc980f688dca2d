import { ref } from 'vue'
import { reasonOf } from '@/api/client'

/** One act at a time: whether it is under way, and why it did not work, in words. */
export function useAct() {
  const busy = ref(false)
  const reason = ref('')

  async function act(work: () => Promise<unknown>): Promise<void> {
    busy.value = true
    reason.value = ''
    try {
      await work()
    } catch (error) {
      reason.value = reasonOf(error)
    } finally {
      busy.value = false
    }
  }

  return { busy, reason, act }
}
