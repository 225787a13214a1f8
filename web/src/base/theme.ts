/** Light, dark, or as the machine is set. Kept in this browser: it belongs to the place, not to the kitchen. */
import { usePreferredDark, useStorage } from '@vueuse/core'
import { watchEffect } from 'vue'
import { browserStore } from './storage'

export type Theme = 'light' | 'dark' | 'machine'
export const theme = useStorage<Theme>('pancount:theme', 'machine', browserStore)

export function useTheme(): void {
  const preferred = usePreferredDark()
  watchEffect(() => {
    const dark = theme.value === 'dark' || (theme.value === 'machine' && preferred.value)
    document.documentElement.classList.toggle('dark', dark)
  })
}
