import { computed } from 'vue'
import { useLightAndDark } from './useTheme'

/** Colours of every picture, from the theme. */
export function useLook() {
  const { colours } = useLightAndDark()
  const look = computed(() => ({
    ink: String(colours.value['on-surface']),
    quiet: String(colours.value.quiet),
    rule: String(colours.value.rule),
    live: String(colours.value.live),
    sheen: String(colours.value.sheen),
    fails: String(colours.value.fails),
    tight: String(colours.value.tight),
    holds: String(colours.value.holds),
    /** Parts of one whole, told apart by depth of one hue so that no verdict colour is borrowed. */
    parts: [0.95, 0.72, 0.54, 0.4, 0.3, 0.22, 0.16].map((depth) =>
      mix(String(colours.value.live), String(colours.value.background), depth),
    ),
  }))

  return { look }
}

function mix(a: string, b: string, share: number): string {
  const channel = (colour: string, at: number) => Number.parseInt(colour.slice(at, at + 2), 16)

  return `#${[1, 3, 5]
    .map((at) =>
      Math.round(channel(a, at) * share + channel(b, at) * (1 - share))
        .toString(16)
        .padStart(2, '0'),
    )
    .join('')}`
}
