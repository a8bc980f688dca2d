import { onBeforeUnmount, onMounted } from 'vue'

/** Keeps the screen on while this is shown: greasy hands do not unlock a phone. */
export function useAwake(): void {
  let lock: WakeLockSentinel | undefined
  async function take(): Promise<void> {
    if (document.visibilityState === 'visible' && 'wakeLock' in navigator) {
      // Refused on a low battery, and then the screen goes dark as usual.
      lock = await navigator.wakeLock.request('screen').catch(() => undefined)
    }
  }
  onMounted(() => {
    void take()
    document.addEventListener('visibilitychange', take)
  })
  onBeforeUnmount(() => {
    document.removeEventListener('visibilitychange', take)
    void lock?.release()
  })
}
