import type { BuyingRow } from '../../api/model'

/** What each kind is called over its part of the list. */
export const TITLES: Record<BuyingRow['kind'], string> = {
  hose: 'Hoses',
  'hose end': 'Hose ends',
  tube: 'Tubes',
  'tube end': 'Tube ends',
  adapter: 'Adapters',
  clamp: 'Clamps',
  grommet: 'Grommets',
  cap: 'Caps',
  part: 'Parts',
  wire: 'Wire',
  'wire end': 'Terminals',
  device: 'Devices',
  bond: 'Bonds',
  'tank fitting': 'For the tank',
  sheet: 'Sheet',
  consumable: 'Used up',
  spare: 'Spares to carry',
  own: 'Added by hand',
}
