import { openDB, type DBSchema, type IDBPDatabase } from 'idb'
import type { Change, ProblemBody } from '@/api/client'

/** An edit that has not reached the server yet, in the order it was made. */
export interface Waiting {
  id?: number
  build: number
  /** The same for every try, so that an edit whose answer was lost is not made twice. */
  key: string
  label: string
  changes: Change[]
  /** When it was made, in Unix milliseconds. */
  at: number
  /** Pictures that go before it. */
  pictures: { name: string; blob: Blob }[]
  /** Why the server did not take it; it waits for the builder then, and so does all that builds on it. */
  refused?: { reason: string; clashes: NonNullable<ProblemBody['clashes']> }
}

interface Kept extends DBSchema {
  waiting: { key: number; value: Waiting; indexes: { build: number } }
}

let opened: Promise<IDBPDatabase<Kept>> | undefined

function base(): Promise<IDBPDatabase<Kept>> {
  opened ??= openDB<Kept>('magpie', 1, {
    upgrade: (db) => {
      db.createObjectStore('waiting', { keyPath: 'id', autoIncrement: true }).createIndex('build', 'build')
    },
  })

  return opened
}

export const store = {
  all: async (): Promise<Waiting[]> => (await base()).getAll('waiting'),
  of: async (build: number): Promise<Waiting[]> => (await base()).getAllFromIndex('waiting', 'build', build),
  put: async (one: Waiting): Promise<number> => (await base()).put('waiting', one),
  remove: async (id: number): Promise<void> => (await base()).delete('waiting', id),
}
