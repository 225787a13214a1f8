/** What is looked for, kept in the address, and whether something holds it. */
import { computed } from 'vue'
import { useRoute, useRouter } from 'vue-router'

const bare = (text: string) => text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase()

export function useFind() {
  const route = useRoute()
  const router = useRouter()
  const find = computed({
    get: () => String(route.query.find ?? ''),
    set: (text: string) => void router.replace({ query: { ...route.query, find: text || undefined } }),
  })
  const words = computed(() => bare(find.value).split(/\s+/).filter(Boolean))
  /** Whether every word that is looked for stands in one of the texts, accents and letter case aside. */
  const holds = (texts: readonly string[]): boolean => {
    const text = bare(texts.join(' '))
    return words.value.every((word) => text.includes(word))
  }
  return { find, holds }
}
