import { computed } from 'vue'
import { useTheme as useVuetifyTheme } from 'vuetify'

/** Light or dark, remembered on this machine. */
export function useLightAndDark() {
  const theme = useVuetifyTheme()
  const dark = computed(() => theme.global.current.value.dark)

  function turn(): void {
    const next = dark.value ? 'light' : 'dark'
    theme.change(next)
    localStorage.setItem('magpie.theme', next)
  }

  return { dark, turn, colours: computed(() => theme.global.current.value.colors) }
}
