import type { Brief } from '../../api/model'

export const FUELS: Brief['fuel'][] = ['petrol E10', 'race petrol', 'E85', 'methanol', 'diesel', 'kerosene', 'avgas 100']
