import { api, type EditResult, type LibraryLine } from '@/api/client'
import { uuid } from '@/shared/refs'
import { useBuild, useEdit } from '@/shared/useBuild'
import { useNotices } from '@/shared/useNotices'
import { usePanel } from '@/shared/usePanel'

/** A part of the library straight into the build, as a place of its own; the leads it wants are laid out beside. */
export function usePlace() {
  const { id } = useBuild()
  const { absorb } = useEdit()
  const notices = useNotices()
  const panel = usePanel()

  return async function place(line: LibraryLine, role?: string): Promise<void> {
    const result = absorb(
      await api.post<EditResult>(`/api/builds/${id.value}/needs`, {
        library: line.id,
        key: uuid(),
        ...(role ? { role } : {}),
      }),
    )
    const need = result.entries.find((entry) => entry.section === 'needs')
    if (need !== undefined) panel.show({ kind: 'part', ref: need.ref, wire: true })
    notices.say(`${role || line.name} is in the build.`)
  }
}
