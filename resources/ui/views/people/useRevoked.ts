import type { Revoked } from '@/api/client'
import { useNotices } from '@/shared/useNotices'

/** Says what somebody had given out that ended with their role. */
export function useRevoked() {
  const notices = useNotices()

  return ({ invitations, links }: Revoked): void => {
    const lost = [
      invitations.length > 0 ? `invitations for ${invitations.join(', ')}` : '',
      links.length > 0 ? `links for ${links.join(', ')}` : '',
    ].filter(Boolean)
    if (lost.length > 0) notices.say(`Ended with the role: ${lost.join('; ')}.`)
  }
}
