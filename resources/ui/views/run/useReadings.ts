import { computed } from 'vue'
import { api, type BuildDocument, type Change, type Rung } from '@/api/client'
import { whoIsHere } from '@/shared/session'
import { freshRef } from '@/shared/refs'
import { useBuild, useEdit } from '@/shared/useBuild'
import { useWaiting } from '@/offline/useWaiting'

export type Expected = Rung['readings'][number]
export type Reading = NonNullable<BuildDocument['readings']>[number]

/** A text with its unit: the one that is expected where only a figure was typed. */
export function withUnit(text: string, unit: string | null): string {
  const typed = text.trim()

  return unit !== null && /^[+−-]?[\d.,\s]+$/.test(typed) ? `${typed} ${unit}` : typed
}

export const seconds = () => Math.floor(Date.now() / 1000)

/** Who signs what is noted now. */
export async function me(): Promise<string | undefined> {
  try {
    return (await whoIsHere()).user?.name
  } catch {
    return undefined
  }
}

/** Stores what an instrument showed, where it was expected. */
export function useReadings() {
  const { id, document: build, needs } = useBuild()
  const { edit } = useEdit()
  const waiting = useWaiting()
  const readings = computed(() => build.value?.readings ?? [])

  async function store(
    expected: Pick<Expected, 'what' | 'label' | 'need' | 'axis' | 'port' | 'scenario' | 'unit'>,
    text: string,
    more: Partial<Reading> = {},
    picture: { name: string; blob: Blob } | null = null,
  ): Promise<void> {
    const part = expected.need === null ? undefined : needs.value.get(expected.need)?.choice
    const by = await me()
    const changes: Change[] = [
      {
        section: 'readings',
        create: {
          ref: freshRef('R', readings.value, waiting.cut),
          what: expected.what,
          value: withUnit(text, expected.unit),
          ...(expected.need === null ? {} : { need: expected.need }),
          ...(expected.axis === null ? {} : { axis: expected.axis }),
          ...(expected.port === null ? {} : { port: expected.port }),
          ...(expected.scenario === null ? {} : { scenario: expected.scenario }),
          ...(part ? { part } : {}),
          ...(by === undefined ? {} : { by }),
          at: seconds(),
          ...(picture === null ? {} : { photo: picture.name }),
          ...more,
        },
      },
    ]
    await edit(`${expected.label}: ${text}`, changes, picture === null ? [] : [picture])
  }
  /** What a simulated instrument shows there, and with what it was read. */
  const simulated = (key: string) =>
    api.get<{ value: string; instrument: string; accuracy: string }>(
      `/api/builds/${id.value}/simulated-readings/${key}`,
    )

  return { readings, store, simulated }
}
