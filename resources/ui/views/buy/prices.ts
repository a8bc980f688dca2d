import type { Change, Offer } from '@/api/client'
import { today } from '@/shared/format'

/** What goes with another price: its day, and what it was on the day before it, kept beside. */
export function later(offer: Offer): NonNullable<Change['set']> {
  return offer.date === today()
    ? []
    : [
        { path: ['date'], was: offer.date, to: today() },
        {
          path: ['past'],
          was: (offer.past ?? null) as never,
          to: [...(offer.past ?? []), { date: offer.date, price: offer.price }] as never,
        },
      ]
}
