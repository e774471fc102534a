import { Box, Button, Typography } from '@mui/material'
import * as declared from '../../api/declared'
import type { Bracket, NewWork, StructureCut } from '../../api/model'
import { Choice, LengthField, QuantityField } from '../../fields/fields'
import { NameField, WordsField } from '../../fields/WordsField'
import { useUnits } from '../../units/useUnits'
import { freshName } from '../../work/naming'
import { select, useWork } from '../../work/store'
import { pair, Row } from '../Row'
import { changeHeld, removeHeld, setMount } from './edits'

const PLACES = { x_mm: 'From the bay’s rear', y_mm: 'From the bay’s right', z_mm: 'From the bay’s floor' } as const

const useOpen = (id: string) => useWork((work) => work.at?.kind === 'mount' && work.at.id === id)
const toggle = (id: string, open: boolean) => select(open ? null : { kind: 'mount', id })

/** Who leans or stands on the tank, what is bracketed to it, how thick its coating is. */
export function CarriedFields({ readOnly }: { readOnly: boolean }) {
  const mount = useWork((work) => work.design.mount)
  const checks = useWork((work) => work.evaluation?.mount?.leaned_on) ?? []
  const units = useUnits()
  return (
    <>
      <QuantityField
        label="Fittings, module, guard"
        of="kg"
        value={mount.extra_kg}
        hint="mass beyond the tank’s metal and its fuel"
        path="mount.extra_kg"
        disabled={readOnly}
        onCommit={(kg) => kg !== null && setMount({ extra_kg: kg })}
      />
      <QuantityField
        label="Somebody leans, sits or stands on it"
        of="kg"
        value={mount.stood_on_kg ?? null}
        emptyText="nobody"
        path="mount.stood_on_kg"
        disabled={readOnly}
        onCommit={(stood_on_kg) => setMount({ stood_on_kg })}
      />
      {checks.map((check) => (
        <Typography key={check.by} variant="body2" data-leaned={check.by || 'person'}>
          {check.panel} under {check.name}, {units.quantity('n', check.load_n)}:{' '}
          {units.quantity('mpa', check.stress_mpa)} of {units.quantity('mpa', check.allowed_mpa)} allowed, sags{' '}
          {units.lengthUnitText(check.sags_mm)}.
        </Typography>
      ))}
      {mount.brackets.map((bracket, place) => (
        <BracketRow key={bracket.id} bracket={bracket} path={`mount.brackets.${place}`} readOnly={readOnly} />
      ))}
      <Button
        variant="outlined"
        disabled={readOnly}
        onClick={() => {
          const named = freshName('bracket', mount.brackets)
          setMount({ brackets: [...mount.brackets, { ...declared.Bracket.defaults, ...named }] })
          select({ kind: 'mount', id: named.id })
        }}
      >
        Add a bracket on the tank
      </Button>
      <LengthField
        label="Coating thickness, each side"
        value={mount.coating_mm}
        hint="holes are drilled larger by twice that"
        path="mount.coating_mm"
        disabled={readOnly}
        onCommit={(mm) => mm !== null && setMount({ coating_mm: mm })}
      />
    </>
  )
}

function BracketRow({ bracket, path, readOnly }: { bracket: Bracket; path: string; readOnly: boolean }) {
  const open = useOpen(bracket.id)
  const set = (part: Partial<Bracket>) => changeHeld('brackets', bracket.id, part)
  return (
    <Row
      name={bracket.name}
      aside={bracket.side}
      open={open}
      onToggle={() => toggle(bracket.id, open)}
      data-row={bracket.id}
    >
      <NameField value={bracket.name} disabled={readOnly} onCommit={(name) => set({ name })} />
      <Choice
        label="Side of the tank"
        value={bracket.side}
        options={declared.Bracket.choices.side}
        disabled={readOnly}
        onChange={(side) => set({ side })}
      />
      <Box sx={pair}>
        <QuantityField
          label="Mass it carries"
          of="kg"
          value={bracket.kg}
          path={`${path}.kg`}
          disabled={readOnly}
          onCommit={(kg) => kg !== null && set({ kg })}
        />
        <LengthField
          label="Off the tank’s side"
          value={bracket.off_mm}
          path={`${path}.off_mm`}
          disabled={readOnly}
          onCommit={(off_mm) => off_mm !== null && set({ off_mm })}
        />
        <LengthField
          label="Foot on the tank"
          value={bracket.foot_mm}
          path={`${path}.foot_mm`}
          disabled={readOnly}
          onCommit={(foot_mm) => foot_mm !== null && set({ foot_mm })}
        />
      </Box>
      <Button disabled={readOnly} onClick={() => removeHeld('brackets', bracket.id)}>
        Remove {bracket.name}
      </Button>
    </Row>
  )
}

/** Holes and bends in the finished tank, and what is cut out of the vehicle for it. */
export function ChangeFields({ readOnly }: { readOnly: boolean }) {
  const mount = useWork((work) => work.design.mount)
  const top = useWork((work) => work.evaluation?.shell?.geometry?.body ?? null)
  return (
    <>
      {mount.new_work.map((work, place) => (
        <WorkRow key={work.id} work={work} path={`mount.new_work.${place}`} readOnly={readOnly} />
      ))}
      <Button
        variant="outlined"
        disabled={readOnly || !top}
        onClick={() => {
          if (!top) return
          const named = freshName('hole', mount.new_work)
          const at = {
            x_mm: Math.round((top.low.x + top.high.x) / 2),
            y_mm: Math.round((top.low.y + top.high.y) / 2),
            z_mm: Math.round(top.high.z),
          }
          setMount({ new_work: [...mount.new_work, { ...declared.NewWork.defaults, ...named, ...at }] })
          select({ kind: 'mount', id: named.id })
        }}
      >
        Add a hole or bend in the finished tank
      </Button>
      {mount.cuts.map((cut) => (
        <CutRow key={cut.id} cut={cut} readOnly={readOnly} />
      ))}
      <Button
        variant="outlined"
        disabled={readOnly}
        onClick={() => {
          const named = freshName('cut', mount.cuts)
          setMount({ cuts: [...mount.cuts, { ...declared.StructureCut.defaults, ...named }] })
          select({ kind: 'mount', id: named.id })
        }}
      >
        Add a cut in the vehicle’s structure
      </Button>
    </>
  )
}

function WorkRow({ work, path, readOnly }: { work: NewWork; path: string; readOnly: boolean }) {
  const open = useOpen(work.id)
  const units = useUnits()
  const near = useWork((all) => all.evaluation?.mount?.near_seams?.find((one) => one.id === work.id))
  const set = (part: Partial<NewWork>) => changeHeld('new_work', work.id, part)
  return (
    <Row
      name={work.name}
      aside={near ? `${units.lengthUnitText(near.off_mm)} off a seam` : work.kind}
      open={open}
      onToggle={() => toggle(work.id, open)}
      data-row={work.id}
    >
      <NameField value={work.name} disabled={readOnly} onCommit={(name) => set({ name })} />
      <Choice
        label="Kind of work"
        value={work.kind}
        options={declared.NewWork.choices.kind}
        disabled={readOnly}
        onChange={(kind) => set({ kind })}
      />
      <Box sx={pair}>
        {(Object.keys(PLACES) as (keyof typeof PLACES)[]).map((name) => (
          <LengthField
            key={name}
            label={PLACES[name]}
            value={work[name]}
            path={`${path}.${name}`}
            disabled={readOnly}
            onCommit={(mm) => mm !== null && set({ [name]: mm })}
          />
        ))}
        <LengthField
          label="Across"
          value={work.across_mm}
          path={`${path}.across_mm`}
          disabled={readOnly}
          onCommit={(mm) => mm !== null && set({ across_mm: mm })}
        />
      </Box>
      <Button disabled={readOnly} onClick={() => removeHeld('new_work', work.id)}>
        Remove {work.name}
      </Button>
    </Row>
  )
}

function CutRow({ cut, readOnly }: { cut: StructureCut; readOnly: boolean }) {
  const open = useOpen(cut.id)
  const set = (part: Partial<StructureCut>) => changeHeld('cuts', cut.id, part)
  return (
    <Row
      name={cut.name}
      aside={cut.reinforcement ? 'made good' : 'nothing carries it'}
      open={open}
      onToggle={() => toggle(cut.id, open)}
      data-row={cut.id}
    >
      <NameField value={cut.name} disabled={readOnly} onCommit={(name) => set({ name })} />
      <WordsField
        label="Reinforcement"
        value={cut.reinforcement}
        most={declared.StructureCut.most.reinforcement}
        disabled={readOnly}
        hint="What takes over what it carried. The tank isn’t mounted until that is done and photographed."
        onCommit={(reinforcement) => set({ reinforcement })}
      />
      <Button disabled={readOnly} onClick={() => removeHeld('cuts', cut.id)}>
        Remove {cut.name}
      </Button>
    </Row>
  )
}
