import { computed } from 'vue'
import type { Lead, Path } from '@/api/client'
import { useBuild, useCatalogue, useEdit, useEvidence } from '@/shared/useBuild'
import { familyPorts } from '@/shared/usePortSpecs'

/** What the fields of a lead may be, and how each is stored. */
export function useLeadFields() {
  const { document: build, parts, needsOf } = useBuild()
  const { set } = useEdit()
  const { data: catalogue } = useCatalogue()

  const fuses = computed(() => needsOf('fuse'))
  const contacts = computed(() =>
    (build.value?.parts ?? [])
      .filter((part) => part.family === 'contact_housing')
      .map((part) => ({ value: part.ref, title: part.name })),
  )
  const terminations = computed(() => (catalogue.value?.terminations ?? []).map((one) => ({ value: one, title: one })))
  const strandings = computed(() => (catalogue.value?.strandings ?? []).map((one) => ({ value: one, title: one })))
  const evidence = useEvidence()
  const chains = computed(() => needsOf('cable_chain'))
  const screens = ['none', 'one end', 'both ends'].map((one) => ({ value: one, title: one }))
  const routes = [
    { value: 'fixed', title: 'fixed' },
    { value: 'flexing', title: 'flexing' },
  ]
  const yesNo = [
    { value: 'yes', title: 'yes' },
    { value: 'no', title: 'no' },
  ]
  const ports = computed(() =>
    (build.value?.needs ?? []).flatMap((need) => {
      const part = parts.value.get(need.choice ?? '')
      const names = new Set([
        ...familyPorts(
          catalogue.value?.families.find((family) => family.key === need.family),
          part,
        ).map((port) => port.name),
        ...(part?.ports ?? []).map((port) => port.name),
      ])

      return [...names].map((port) => ({ value: `${need.ref}.${port}`, title: `${need.role} · ${port}` }))
    }),
  )

  const store = (lead: Lead, what: string, path: Path) => (text: string, was: unknown) =>
    set(`${what} of ${lead.ref}`, 'leads', lead.ref, path, was, text === '' ? null : text)
  const storeWhole = (lead: Lead, what: string, path: Path) => (text: string, was: unknown) =>
    set(
      `${what} of ${lead.ref}`,
      'leads',
      lead.ref,
      path,
      was,
      text === '' ? null : /^\d+$/.test(text) ? Number(text) : text,
    )
  const storeFlag = (lead: Lead, what: string, path: Path) => (text: string, was: unknown) =>
    set(
      `${what} of ${lead.ref}`,
      'leads',
      lead.ref,
      path,
      was === null ? null : was === 'yes',
      text === '' ? null : text === 'yes',
    )

  return {
    fuses,
    contacts,
    terminations,
    strandings,
    evidence,
    chains,
    screens,
    routes,
    yesNo,
    ports,
    store,
    storeWhole,
    storeFlag,
  }
}
