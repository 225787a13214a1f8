/** What is worth asking of a recipe, and what of it is still open. */
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch, type Ref } from 'vue'
import { api, ask, type Asked, type Habits, type TakenIn } from '@/api/client'
import { useUnits } from '@/base/kitchen'
import { tell } from '@/base/notice'

/** `again` reads the recipe anew; `attempt` shows what the server refuses. */
export function useQuestions(taken: Ref<TakenIn | null>, again: () => Promise<void>, attempt: (act: () => Promise<unknown>) => Promise<void>) {
  const cache = useQueryClient()
  const { kitchen } = useUnits()

  /* They keep their places while they are answered, so that nothing moves away under a finger. */
  const places = ref<string[]>([])
  const questions = computed(() => [...(taken.value?.questions ?? [])].sort((a, b) => places.value.indexOf(a.key) - places.value.indexOf(b.key)))
  watch(
    () => taken.value?.questions.map((q) => q.key) ?? [],
    (keys) => {
      places.value = [...places.value.filter((key) => keys.includes(key)), ...keys.filter((key) => !places.value.includes(key))]
    },
    { immediate: true },
  )

  /** Pairs that are not the same, on whatever line. */
  const disagreements = computed(() => (taken.value?.lines ?? []).flatMap((line, number) => line.disagrees.map((said) => ({ said, number }))))
  const plural = (n: number, word: string, rest: string) => (n ? `${n} ${word}${n === 1 ? '' : 's'} ${rest}` : '')
  const stillOpen = computed(() => {
    const lines = taken.value?.lines ?? []
    return [
      plural(lines.filter((line) => line.kind === 'heading' && line.asks).length, 'heading', 'to place'),
      plural(lines.filter((line) => line.things.some((thing) => thing.asks)).length, 'line', 'to settle'),
      plural(questions.value.filter((q) => !q.answer).length, 'question', 'open: until answered, the range holds every answer'),
      disagreements.value.length ? `${disagreements.value.length} given twice and not the same` : '',
    ].filter(Boolean).join(', ')
  })

  async function answer(asked: Asked, option: string | null): Promise<void> {
    const before = kitchen.value?.settings.habits
    if (!before) return
    const remember = async (habits: Habits) => {
      cache.setQueryData(['kitchen'], await ask(api.PUT('/api/kitchen/habits', { body: habits })))
      await again()
    }
    await attempt(async () => {
      await remember({ ...before, [asked.key]: option })
      tell(option ? 'Remembered for this kitchen.' : 'Left open again.', () => remember(before))
    })
  }
  return { questions, disagreements, stillOpen, answer }
}
