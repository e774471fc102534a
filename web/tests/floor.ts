import type { Build, Entry, OperationState, ProofRound, WalkSeam } from '../src/api/model'
import { withWaiting } from '../src/floor/build'
import { said } from '../src/floor/LogRows'
import type { Waiting } from '../src/floor/outbox'
import { nearestAlong, placeAlong, toneOf, VERDICT_WORDS } from '../src/floor/proof/proof'
import { isLit, stageOf } from '../src/stations/build/assembly'

/** The build with entries that wait on the device: how each operation and gate stands, and what is next. */
export function overlaid(build: Build, entries: Entry[], refused: boolean) {
  const waiting = entries.map((entry, place) => ({ place, job: 1, id: entry.id, entry })) as Waiting[]
  const shown = withWaiting(build, refused ? waiting.map((one) => ({ ...one, refused: 'no' })) : waiting, 1)
  return {
    operations: Object.fromEntries(shown.state.operations.map((one) => [one.operation.id, one.standing])),
    gates: Object.fromEntries(shown.state.gates.map((one) => [one.gate.id, one.standing])),
    next: shown.state.next,
  }
}

/** How far a piece is after each of some operations, done one after the other. */
export function far(all: OperationState[], piece: { part: string; piece: string }) {
  return [...all.keys(), all.length].map((count) => stageOf(piece, all, all.slice(0, count)))
}

/** Which pieces an operation lights. */
export const lit = (one: OperationState, pieces: { part: string; piece: string }[]) =>
  pieces.filter((piece) => isLit(one.operation, piece)).map((piece) => piece.piece)

const SHOWS = {
  say: (it: { text: string }) => it.text,
  cut: String,
  lengthUnit: 'mm',
  quantity: (_: string, value: number) => String(value),
  lengthUnitText: (mm: number) => `${mm} mm`,
  volumeUnitText: (litres: number) => `${litres} L`,
}

/** Entries in words. */
export const inWords = (entries: Entry[]) =>
  entries.map((entry) => said(entry, new Map([['cut', 'Cut the wrapper']]), SHOWS))

/** Where so far along a seam is, and how far along the nearest spot to that place is, there and back. */
export const along = (seam: WalkSeam, spots: number[]) =>
  spots.map((mm) => {
    const place = placeAlong(seam, mm)
    return { place, back: nearestAlong(seam, place) }
  })

/** How each verdict is shown. */
export const tones = (verdicts: ProofRound['verdict'][]) => verdicts.map((one) => [VERDICT_WORDS[one], toneOf(one)])
