/** Ids and names of what is added: each is used once among its like, or findings would speak of two things at once. */
interface Named {
  id: string
  name?: string
}

/** The first of a stem's ids, and of a title's names, that none of its like has yet: "vent", "vent 2", … */
export function freshName(
  title: string,
  taken: readonly Named[],
  stem = title.toLowerCase().replaceAll(' ', '-'),
): { id: string; name: string } {
  let number = 1
  const name = () => (number > 1 ? `${title} ${number}` : title)
  while (taken.some((item) => item.id === `${stem}-${number}` || item.name === name())) number += 1
  return { id: `${stem}-${number}`, name: name() }
}

export const freshId = (title: string, taken: readonly Named[]) =>
  freshName(
    title,
    taken.map(({ id }) => ({ id })),
  ).id
