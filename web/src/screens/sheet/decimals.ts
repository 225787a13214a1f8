/** Decimals come as text, exactly as the scale shows them; only thousands are spaced. */
export const spaced = (decimal: string): string => decimal.replace(/\B(?=(\d{3})+(?!\d))(?<!\.\d*)/g, '\u202f')
