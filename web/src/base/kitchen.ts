/** The kitchen, its pantry and the core's reference, shared by all screens. */
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, ask, type Climate, type Kit, type Known } from '@/api/client'
import type { Units } from './format'

export function useReference() {
  return useQuery({ queryKey: ['reference'], queryFn: () => ask(api.GET('/api/reference')), staleTime: Infinity })
}

export function useKitchenState() {
  return useQuery({ queryKey: ['kitchen'], queryFn: () => ask(api.GET('/api/kitchen')), staleTime: 60_000 })
}

export function usePantry() {
  return useQuery({ queryKey: ['pantry'], queryFn: () => ask(api.GET('/api/pantry')), staleTime: 60_000 })
}

/** Every ingredient as the kitchen has it; empty until they are here. */
export function useIngredients() {
  const pantry = usePantry()
  return computed(() => pantry.data.value?.map((item) => item.ingredient) ?? [])
}

const USUAL_CLIMATE: Climate = { room_c: 22, warm_c: 28, fridge_c: 5, tap_c: 12, machine_c_min: 0.6, hand_c_min: 0.2, bowl: 'none', bowl_weighs_g: 0, oven_fan: false, oven_error_c: 0, heat_unit: 'C', rise_factor: 1 }

const NO_KIT: Kit = { ovens: 1, mixers: 1, pots: 1, griddles: 1, sheets: 2, shelves: 2, fridge_shelves: 1, spread_g: 2 }

/** What the kitchen brings to its reckoning: its own ingredients, the schools that it follows, and its kit. */
export function useKnown() {
  const ingredients = useIngredients()
  const kitchen = useKitchenState()
  return computed<Known>(() => ({
    own: ingredients.value.filter((item) => item.own),
    practice: kitchen.data.value?.settings.practice ?? { starter: 'joined', yeast: '3 : 1.2 : 1' },
    kit: kitchen.data.value?.settings.kit ?? NO_KIT,
    climate: kitchen.data.value?.settings.climate ?? USUAL_CLIMATE,
    scale: kitchen.data.value?.settings.scale ?? { unit: 'g', step: '1', fine_under: '25' },
  }))
}

/** The kitchen's pans, as they stand on the shelf. */
export function usePans(archived = false) {
  return useQuery({ queryKey: ['pans', archived], queryFn: () => ask(api.GET('/api/pans', { params: { query: { archived } } })), staleTime: 60_000 })
}

export function useCups() {
  return useQuery({ queryKey: ['cups'], queryFn: () => ask(api.GET('/api/cups')), staleTime: 60_000 })
}

export function useUnits() {
  const reference = useReference()
  const kitchen = useKitchenState()
  /** Units as set; undefined until both the kitchen and the reference are here. */
  const units = computed<Units | undefined>(() =>
    reference.data.value && kitchen.data.value
      ? {
          weight: kitchen.data.value.settings.scale.unit,
          length: kitchen.data.value.settings.length_unit,
          reference: reference.data.value,
        }
      : undefined,
  )
  const error = computed(() => reference.error.value ?? kitchen.error.value)
  return { units, kitchen: kitchen.data, error }
}
