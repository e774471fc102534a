import { createContext, use, useMemo } from 'react'
import type { Units, Words } from '../api/model'
import { editLength, exactLength, nudgeStep, parseLength, roundStep, showLength, showLengthUnit, MM_PER_INCH } from './length'
import { plainNumber } from './number'
import { editPower, FLOW_UNIT, parseFlow, parsePower, POWER_UNIT, showFlow, showPower } from './power'
import { editVolume, parseVolume, showVolume, showVolumeUnit, VOLUME_UNIT, PER_UNIT } from './volume'

export const UnitsContext = createContext<Units>('mm_l')

/** A sentence's quantity by the ending of its name (keel's `Words`). */
function showQuantity(name: string, value: string | number, units: Units): string {
  if (typeof value === 'string') return value
  const inches = units !== 'mm_l'
  switch (name.slice(name.lastIndexOf('_') + 1)) {
    case 'mm':
      return showLengthUnit(value, inches)
    case 'sheet':
      return inches ? exactLength(value, true).replace(/\d in$/, '"') : showLengthUnit(value, false)
    case 'l':
      return showVolumeUnit(value, units)
    case 'kg':
      return `${plainNumber(value, 2)} kg`
    case 'm':
      return `${plainNumber(value, 2)} m`
    case 'mpa':
      return `${plainNumber(value, 0)} MPa`
    case 'kpa':
      return `${plainNumber(value, 1)} kPa`
    case 'pct':
      return `${plainNumber(value * 100, 1)} %`
    case 'g':
      return `${value} g`
    case 'k':
      return `${value} K`
    case 'lph':
      return showFlow(value, units)
    case 'kw':
      return showPower(value, units)
    case 'kgkwh':
      return `${plainNumber(value, 3)} kg/kWh`
    case 'kgh':
      return `${plainNumber(value, 1)} kg/h`
    case 'kgl':
      return `${plainNumber(value, 3)} kg/L`
    case 'km':
      return `${plainNumber(value, 0)} km`
    case 'h':
      return `${plainNumber(value, 2)} h`
    case 's':
      return `${plainNumber(value, 1)} s`
    case 'v':
      return `${value} V`
    case 'ohm':
      return `${plainNumber(value, 1)} Ω`
    case 'deg':
      return `${plainNumber(value, 0)}°`
    case 'cm2':
      return `${plainNumber(value, 1)} cm²`
    default:
      return String(value)
  }
}

export const say = (words: Words, units: Units) =>
  words.text.replace(/\{(\w+)\}/g, (_, name: string) => showQuantity(name, words.values?.[name] ?? '', units))

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
      powerUnit: POWER_UNIT[units],
      powerText: (kw: number) => showPower(kw, units),
      editPower: (kw: number) => editPower(kw, units),
      parsePower: (text: string) => parsePower(text, units),
      flowUnit: FLOW_UNIT[units],
      flowText: (litresPerHour: number, digits = 1) => showFlow(litresPerHour, units, digits),
      parseFlow: (text: string) => parseFlow(text, units),
      round: roundStep(inches),
      nudge: nudgeStep(inches),
      /** A plain sentence from the server, its millimetres and litres in the reader's units. */
      inText: (text: string) =>
        inches
          ? text
              .replace(/(\d+(?:\.\d+)?) mm\b/g, (_, mm: string) => showLengthUnit(Number(mm), true))
              .replace(/(\d+(?:\.\d+)?) L\b(?!\/)/g, (_, litres: string) => showVolumeUnit(Number(litres), units, 2))
          : text,
      say: (words: Words) => say(words, units),
      number: plainNumber,
    }
  }, [units])
}
