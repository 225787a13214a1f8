import { useMediaQuery } from '@vueuse/core'

/** Whether this is as narrow as a phone, as the sheets of style have it too. */
export const usePhone = () => useMediaQuery('(max-width: 760px)')
