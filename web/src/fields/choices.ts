/** Choices with the words that stand for them, in the order in which the core names them. */
export const labelled = <T extends string>(choices: readonly T[], labels: Record<T, string>) =>
  choices.map((value) => ({ value, label: labels[value] }))

/** The nearest value that a field allows. */
export const within = (value: number, [least, most]: readonly [number, number]) =>
  Math.min(most, Math.max(least, value))
