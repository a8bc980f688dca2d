import { computed } from 'vue'
import type { FindingSummary } from '@/api/client'
import { useBuild, useCatalogue } from './useBuild'

/** The worst verdict on each need, lead and mate, as the server ordered them: worst first. */
export function useFindings() {
  const { overview } = useBuild()
  const { data: catalogue } = useCatalogue()
  const findings = computed<FindingSummary[]>(() => overview.value?.findings ?? [])

  const worstOfNeed = computed(() => {
    const worst = new Map<string, FindingSummary>()
    for (const finding of findings.value) {
      for (const need of finding.subject.needs) {
        if (!worst.has(need)) worst.set(need, finding)
      }
    }

    return worst
  })
  const ofLead = computed(() => {
    const found = new Map<string, FindingSummary[]>()
    for (const finding of findings.value) {
      const { kind, ref, leads } = finding.subject
      for (const lead of kind === 'lead' ? [ref] : leads) {
        const held = found.get(lead)
        if (held === undefined) found.set(lead, [finding])
        else held.push(finding)
      }
    }

    return found
  })
  const ofNeed = (need: string) => findings.value.filter((finding) => finding.subject.needs.includes(need))
  /** Findings of the checks whose cards say they belong to a topic. */
  const about = (topic: string) => ofTopic.value.get(topic) ?? []
  const ofTopic = computed(() => {
    const topics = new Map((catalogue.value?.checks ?? []).map((card) => [card.id, card.topics]))
    const found = new Map<string, FindingSummary[]>()
    for (const finding of findings.value) {
      for (const topic of topics.get(finding.check) ?? []) {
        const held = found.get(topic)
        if (held === undefined) found.set(topic, [finding])
        else held.push(finding)
      }
    }

    return found
  })

  return { findings, worstOfNeed, ofLead, ofNeed, about }
}
