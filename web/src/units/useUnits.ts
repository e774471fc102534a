import { createContext, use, useMemo } from 'react'
import type { Units, Words } from '../api/model'
import {
  editLength,
  exactLength,
  nudgeStep,
  parseLength,
  roundStep,
  showLength,
  showLengthUnit,
  MM_PER_INCH,
} from './length'
import { plainNumber } from './number'
import { editFlow, parseFlow } from './flow'
import {
  editQuantity,
  type Ending,
  isEnding,
  parseQuantity,
  perOf,
  quantitiesIn,
  showAmount,
  showQuantity,
  unitOf,
} from './quantity'
import { editWire, parseWire, showWire, WIRE_UNIT } from './wire'
import { editVolume, parseVolume, showVolume, showVolumeUnit, VOLUME_UNIT, PER_UNIT } from './volume'

export const UnitsContext = createContext<Units>('mm_l')

/** A sentence's quantity by the ending of its name (keel's `Words`). */
function inSentence(name: string, value: string | number, units: Units): string {
  if (typeof value === 'string') return value
  const inches = units !== 'mm_l'
  const ending = name.slice(name.lastIndexOf('_') + 1)
  switch (ending) {
    case 'mm':
      return showLengthUnit(value, inches)
    case 'sheet':
      return inches ? exactLength(value, true).replace(/\d in$/, '"') : showLengthUnit(value, false)
    case 'wire':
      return showWire(value, units)
    case 'l':
      return showVolumeUnit(value, units)
    default:
      return name.includes('_') && isEnding(ending) ? showQuantity(ending, value, units) : String(value)
  }
}

export const say = (words: Words, units: Units) =>
  words.text.replace(/\{(\w+)\}/g, (_, name: string) => inSentence(name, words.values?.[name] ?? '', units))

/** Everything that shows or reads a quantity, in the person's units. */
export function useUnits() {
  const units = use(UnitsContext)
  return useMemo(() => {
    const inches = units !== 'mm_l'
    return {
      units,
      inches,
      lengthUnit: inches ? 'in' : 'mm',
      volumeUnit: VOLUME_UNIT[units],
      /** Millimetres and litres of one unit: an axis has its ticks at round ones. */
      mmPer: inches ? MM_PER_INCH : 1,
      litresPer: PER_UNIT[units],
      length: (mm: number) => showLength(mm, inches),
      lengthUnitText: (mm: number) => showLengthUnit(mm, inches),
      /** A size to cut to: a sixteenth of an inch is too coarse for it. */
      cut: (mm: number) => (inches ? exactLength(mm, true).replace(/\d in$/, '"') : showLength(mm, false)),
      exact: (mm: number) => exactLength(mm, inches),
      editLength: (mm: number) => editLength(mm, inches),
      parseLength: (text: string) => parseLength(text, inches),
      volume: (litres: number, digits = 2) => showVolume(litres, units, digits),
      volumeUnitText: (litres: number, digits = 2) => showVolumeUnit(litres, units, digits),
      editVolume: (litres: number) => editVolume(litres, units),
      parseVolume: (text: string) => parseVolume(text, units),
      wire: (mm2: number) => showWire(mm2, units),
      wireUnit: WIRE_UNIT[units],
      editWire: (mm2: number) => editWire(mm2, units),
      parseWire: (text: string) => parseWire(text, units),
      flowText: (litresPerHour: number, digits = 1) => showQuantity('lph', litresPerHour, units, digits),
      editFlow: (litresPerHour: number) => editFlow(litresPerHour, units),
      parseFlow: (text: string) => parseFlow(text, units),
      /** A quantity by the ending of its name, with its unit. */
      quantity: (ending: Ending, value: number, digits?: number) => showQuantity(ending, value, units, digits),
      /** A number by the ending of its name (`rail_kpa`); as it is where that says no unit. */
      byName: (name: string, value: number) => inSentence(name, value, units),
      /** A quantity as a bare number, under a heading that has the unit. */
      amount: (ending: Ending, value: number, digits?: number) => showAmount(ending, value, units, digits),
      /** Pressure in a line, with its unit or without: whole kilopascals, tenths of a psi. */
      pressure: (kpa: number) => showQuantity('kpa', kpa, units, inches ? 1 : 0),
      pressureAmount: (kpa: number) => showAmount('kpa', kpa, units, inches ? 1 : 0),
      unit: (ending: Ending) => unitOf(ending, units),
      per: (ending: Ending) => perOf(ending, units),
      editQuantity: (ending: Ending, value: number) => editQuantity(ending, value, units),
      parseQuantity: (ending: Ending, text: string) => parseQuantity(text, ending, units),
      round: roundStep(inches),
      nudge: nudgeStep(inches),
      /** A plain sentence from the server, its quantities in the reader's units. */
      inText: (text: string) =>
        inches
          ? quantitiesIn(text, units)
              .replace(/(\d+(?:\.\d+)?) mm\b/g, (_, mm: string) => showLengthUnit(Number(mm), true))
              .replace(/(\d+(?:\.\d+)?) L\b(?!\/)/g, (_, litres: string) => showVolumeUnit(Number(litres), units, 2))
          : text,
      say: (words: Words) => say(words, units),
      number: plainNumber,
    }
  }, [units])
}
