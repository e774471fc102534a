import { useCallback, useLayoutEffect, useRef } from 'react'

/** One function that stays the same from one drawing to the next, and does what the last one given does. */
export function useLatest<Args extends unknown[], Answer>(act: (...args: Args) => Answer): (...args: Args) => Answer {
  const last = useRef(act)
  useLayoutEffect(() => {
    last.current = act
  })
  return useCallback((...args: Args) => last.current(...args), [])
}
