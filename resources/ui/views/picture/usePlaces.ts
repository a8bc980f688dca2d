import { computed } from 'vue'
import type { BuildDocument } from '@/api/client'
import { inMetres } from '@/shared/format'
import { useBuild, useEdit } from '@/shared/useBuild'

export type Place = NonNullable<BuildDocument['places']>[number]
type Position = NonNullable<Place['x']>
type Along = 'x' | 'y' | 'z'

/** How a position is said along each direction. */
export const anchors: Record<Along, Record<Position['at'], string>> = {
  x: {
    low: 'from the left of',
    centre: 'in the middle of',
    high: 'from the right of',
    after: 'right of',
    before: 'left of',
  },
  y: {
    low: 'from the front of',
    centre: 'in the middle of',
    high: 'from the back of',
    after: 'behind',
    before: 'in front of',
  },
  z: {
    low: 'from the bottom of',
    centre: 'in the middle of',
    high: 'from the top of',
    after: 'above',
    before: 'below',
  },
}

export const turns: Record<NonNullable<Place['turned']>, string> = {
  lwh: 'as it lies',
  wlh: 'a quarter round',
  lhw: 'on its long side',
  hlw: 'on its long side, a quarter round',
  whl: 'upright, a quarter round',
  hwl: 'upright',
}

/** A length moved by some millimetres; null where it is written in a way that cannot be reckoned with here. */
export function nudged(text: string | undefined, by: number): string | null {
  const from = inMetres(text ?? '0 mm')

  return from === null ? null : `${Number((from * 1000 + by).toFixed(3))} mm`
}

export function usePlaces() {
  const { document: build, needs } = useBuild()
  const { set, edit, remove } = useEdit()
  const places = computed(() => new Map((build.value?.places ?? []).map((place) => [place.ref, place])))
  const zones = computed(() => new Map((build.value?.zones ?? []).map((zone) => [zone.ref, zone.name])))
  const pieces = computed(() => new Map((build.value?.workpieces ?? []).map((piece) => [piece.ref, piece.name])))
  const called = (place: Place | undefined): string => {
    if (place === undefined) return ''
    const base =
      place.name ??
      (place.need === undefined
        ? place.zone === undefined
          ? pieces.value.get(place.workpiece ?? '')
          : zones.value.get(place.zone)
        : needs.value.get(place.need)?.role) ??
      place.ref

    return place.piece === undefined ? base : `${base} (${place.piece})`
  }
  /** All but one, as the options of a field. */
  const others = (but: string) =>
    [...places.value.values()]
      .filter((place) => place.ref !== but)
      .map((place) => ({ value: place.ref, title: called(place) }))
      .sort((a, b) => a.title.localeCompare(b.title))
  /** Stores one member of a place; nothing where it is emptied. */
  const save = (place: Place, what: string, path: (string | number)[]) => (text: string, was: unknown) =>
    set(`${what} of ${called(place)}`, 'places', place.ref, path, was, text === '' ? null : text)

  return { build, places, called, others, save, set, edit, remove }
}
