import { whoIsHere } from '@/shared/session'
import type { Change, Decision } from '@/api/client'
import { today } from './format'
import { freeRef } from './refs'
import { useBuild, useEdit } from './useBuild'

type Taken = Pick<Decision, 'about' | 'question' | 'choice'> &
  Partial<Pick<Decision, 'reason' | 'need' | 'school' | 'facts' | 'rejected'>>

/**
 * Decides a question, new or asked before: who, when, why, and the facts of the day, with whatever else the choice
 * changes.
 */
export function useDecide() {
  const { document: build } = useBuild()
  const { edit } = useEdit()

  return async function decide(label: string, taken: Taken, besides: Change[] = []): Promise<void> {
    const { about, question, need, school, ...rest } = taken
    const held = build.value?.decisions ?? []
    const known = held.find((one) => one.about === about && one.need === need && one.school === school)
    const entry = { ...rest, state: 'made', date: today(), who: (await whoIsHere()).user?.name }
    await edit(label, [
      ...besides,
      known === undefined
        ? {
            section: 'decisions',
            create: {
              ref: freeRef(`d-${need ?? school ?? about}`.slice(0, 60), (ref) => held.some((one) => one.ref === ref)),
              about,
              question,
              ...(need === undefined ? {} : { need }),
              ...(school === undefined ? {} : { school }),
              ...entry,
            },
          }
        : {
            section: 'decisions',
            ref: known.ref,
            set: Object.entries(entry).map(([path, to]) => ({ path: [path], to })),
          },
    ])
  }
}
