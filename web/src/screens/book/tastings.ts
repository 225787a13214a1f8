/** A tasting begun with some bakes; which letter each gets is drawn by the server. */
import { api, ask } from '@/api/client'

/** Its number. Throws `Refused`. */
export const beginTasting = async (bakes: readonly string[]): Promise<string> => (await ask(api.POST('/api/tastings', { body: { id: crypto.randomUUID(), bakes: [...bakes] } }))).id
