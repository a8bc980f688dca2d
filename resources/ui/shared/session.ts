import { api, type Session } from '@/api/client'

let session: Session | null = null

/** Who is signed in; asked for once, or afresh. */
export async function whoIsHere(fresh = false): Promise<Session> {
  session = session === null || fresh ? await api.get<Session>('/api/session') : session

  return session
}
