/** What happened at the bench and is not at the server yet: kept on this device, sent in order when it can be. */
import { openDB, type DBSchema, type IDBPDatabase } from 'idb'
import type { BenchEvent } from '@/api/client'

export interface Pending {
  id: string
  bake: string
  event: BenchEvent
  /** Why the server would not take it; blank while it was not asked. */
  refused: string
}
interface Schema extends DBSchema {
  pending: { key: string; value: Pending; indexes: { bake: string } }
}

let opened: Promise<IDBPDatabase<Schema>> | null = null
const database = (): Promise<IDBPDatabase<Schema>> =>
  (opened ??= openDB<Schema>('pancount-bench', 1, {
    upgrade: (made) => void made.createObjectStore('pending', { keyPath: 'id' }).createIndex('bake', 'bake'),
  }))

/** What is kept of a bake, in the order in which it happened. */
export async function pendingOf(bake: string): Promise<Pending[]> {
  const found = await (await database()).getAllFromIndex('pending', 'bake', bake)
  return found.sort((a, b) => a.event.clock - b.event.clock || a.event.writer.localeCompare(b.event.writer))
}

export async function keep(some: Pending[]): Promise<void> {
  const writing = (await database()).transaction('pending', 'readwrite', { durability: 'strict' })
  await Promise.all([...some.map((one) => writing.store.put(one)), writing.done])
}

export async function drop(ids: string[]): Promise<void> {
  const writing = (await database()).transaction('pending', 'readwrite')
  await Promise.all([...ids.map((id) => writing.store.delete(id)), writing.done])
}
