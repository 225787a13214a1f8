/** A changed formula laid on the desk, from where it is saved as the next revision. */
import { api, ask, type Formula } from '@/api/client'

/** False where something unsaved lies on the desk, and the baker has not said that it may go. Throws `Refused`. */
export async function layOnDesk(formulaId: number, formula: Formula, sure: boolean): Promise<boolean> {
  const path = { params: { path: { formula_id: formulaId } } }
  const state = await ask(api.GET('/api/formulas/{formula_id}', path))
  if (state.head.unsaved && state.head.latest_number > 0 && !sure) return false
  await ask(api.PUT('/api/formulas/{formula_id}/desk', { ...path, body: { formula, count: state.count, version: state.version } }))
  return true
}
