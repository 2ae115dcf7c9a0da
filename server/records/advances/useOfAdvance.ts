/** Under which key an assessment notes that an advance was part of it. */
export const useOfAdvance = (id: string): string => `advance:${id}`;
