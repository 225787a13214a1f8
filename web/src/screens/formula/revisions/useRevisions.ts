/** Revisions of a formula, as several parts of the screen ask for them. */
import { useQuery } from '@tanstack/vue-query'
import { toValue, type MaybeRefOrGetter } from 'vue'
import { api, ask } from '@/api/client'

/** Its revisions, newest first; asked for anew where the number of the latest changes. Nothing while there is no formula. */
export function useRevisions(id: MaybeRefOrGetter<number | null>, latest?: MaybeRefOrGetter<number>) {
  return useQuery({
    queryKey: ['revisions', () => toValue(id), () => toValue(latest)],
    enabled: () => toValue(id) !== null,
    queryFn: () => ask(api.GET('/api/formulas/{formula_id}/revisions', { params: { path: { formula_id: toValue(id) as number } } })),
  })
}

/** One of them, whole. Nothing while there is no formula, or none is wanted. */
export function useRevision(id: MaybeRefOrGetter<number | null>, number: MaybeRefOrGetter<number | undefined>) {
  return useQuery({
    queryKey: ['revision', () => toValue(id), () => toValue(number)],
    enabled: () => toValue(id) !== null && toValue(number) !== undefined,
    queryFn: () => ask(api.GET('/api/formulas/{formula_id}/revisions/{number}', { params: { path: { formula_id: toValue(id) as number, number: toValue(number) as number } } })),
  })
}
