import * as declared from '../../api/declared'
import type { Design, Sender, SenderPart, SwingArm } from '../../api/model'
import { freshName } from '../../work/naming'
import { change, select, useWork } from '../../work/store'

type Gauge = Design['gauge']

export const setGauge = (part: Partial<Gauge>) =>
  change((design) => ({ ...design, gauge: { ...design.gauge, ...part } as Gauge }))
const setSenders = (make: (senders: Sender[]) => Sender[]) =>
  change((design) => ({ ...design, gauge: { ...design.gauge, senders: make(design.gauge.senders) } as Gauge }))

export const changeSender = (id: string, part: Partial<Sender>) =>
  setSenders((senders) => senders.map((item) => (item.id === id ? { ...item, ...part } : item)))
export const changeAction = (sender: Sender, part: Partial<Sender['action']>) =>
  changeSender(sender.id, { action: { ...sender.action, ...part } as Sender['action'] })

export const NEW_ARM: SwingArm = {
  ...declared.SwingArm.defaults,
  kind: 'swing arm',
  made_arm_mm: 150,
  empty_deg: -45,
  full_deg: 45,
}
export const NEW_TUBE: Sender['action'] = { ...declared.TubeSender.defaults, kind: 'tube' }

/** A sender in the middle of the tank: of the shop's library, or a usual arm to type over. */
export function addSender(part: SenderPart | null) {
  const shape = useWork.getState().evaluation?.shell?.geometry
  if (!shape) return
  const present = useWork.getState().design.gauge.senders
  const named = freshName(part?.name ?? 'Sender', present, 'sender')
  const middle = (axis: 'x' | 'y') => Math.round((shape.body.high[axis] - shape.body.low[axis]) / 2)
  setSenders((senders) => [
    ...senders,
    { ...declared.Sender.defaults, action: NEW_ARM, ...part, ...named, x_mm: middle('x'), y_mm: middle('y') },
  ])
  select({ kind: 'sender', id: named.id })
}

export function removeSender(id: string) {
  select(null)
  setSenders((senders) => senders.filter((item) => item.id !== id))
}
