/** A number to so many digits, with a true minus sign, and none on what rounds to zero. */
export const plainNumber = (value: number, digits: number) =>
  value
    .toFixed(digits)
    .replace(/^-(?=[0.]*$)/, '')
    .replace('-', '−')

/** Whether there is a figure at all. */
export const isNumber = (value: unknown): value is number => typeof value === 'number'
