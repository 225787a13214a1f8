import type { FormulaHead } from '@/api/client'

/** What a formula is called in lists. */
export const nameOf = (head: FormulaHead): string => head.name || 'Formula without a name'
