import { toRaw } from 'vue'

/** A copy of plain data that shares nothing with it, free of Vue's watching. */
export const plainCopy = <T>(value: T): T => JSON.parse(JSON.stringify(toRaw(value)))
