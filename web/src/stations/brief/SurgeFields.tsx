import { Alert, Box, Button, Typography } from '@mui/material'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import * as declared from '../../api/declared'
import { api, asked, type Schemas } from '../../api/client'
import type { Brief } from '../../api/model'
import { labelled } from '../../fields/choices'
import { Choice, FlowField, QuantityField } from '../../fields/fields'
import { isNumber } from '../../units/number'
import { useUnits } from '../../units/useUnits'
import { save, useSaving } from '../../work/saving'
import { useWork } from '../../work/store'
import { pair } from '../Row'
import { changeSurge, setBrief } from './edits'

/** How long the pickup runs dry, what refills the surge volume, and a tank of its own for it. */
export function SurgeFields({ brief, readOnly }: { brief: Brief; readOnly: boolean }) {
  const answer = useWork((work) => work.evaluation?.brief?.surge)
  const units = useUnits()
  const { surge } = brief
  if (!surge) {
    return (
      <>
        <Typography variant="body2" color="textSecondary">
          Where the pickup can run dry in a bend, size what bridges it.
        </Typography>
        <Button
          variant="outlined"
          disabled={readOnly}
          onClick={() => setBrief({ surge: { ...declared.Surge.defaults, uncovered_s: 5 } })}
        >
          Bridge a dry spell
        </Button>
      </>
    )
  }
  return (
    <>
      <Box sx={pair}>
        <QuantityField
          label="Pickup uncovered for"
          of="s"
          value={surge.uncovered_s}
          path="brief.surge.uncovered_s"
          disabled={readOnly}
          onCommit={(uncovered_s) => uncovered_s !== null && changeSurge({ uncovered_s })}
        />
        <QuantityField
          label="Time covered between"
          of="s"
          value={surge.gap_s ?? null}
          emptyText="not said"
          path="brief.surge.gap_s"
          disabled={readOnly}
          onCommit={(gap_s) => changeSurge({ gap_s })}
        />
        <FlowField
          label="Lift pump"
          value={surge.lift_l_per_h ?? null}
          emptyText="none yet"
          path="brief.surge.lift_l_per_h"
          disabled={readOnly}
          onCommit={(lift_l_per_h) => changeSurge({ lift_l_per_h })}
        />
      </Box>
      {answer ? (
        <Typography variant="body2" data-surge>
          {units.flowText(answer.engine_l_per_h)} for {units.number(surge.uncovered_s, 1)} s draws{' '}
          {units.volumeUnitText(answer.sizing.drawn_l)}; with the house rule’s margin{' '}
          <strong>{units.volumeUnitText(answer.sizing.volume_l)}</strong> of surge volume.
          {isNumber(answer.sizing.refill_s) && ` Full again after ${units.number(answer.sizing.refill_s, 1)} s.`}
        </Typography>
      ) : (
        <Typography variant="body2" color="textSecondary">
          Add the engine’s demand to size it.
        </Typography>
      )}
      {answer && <SurgeTankButton readOnly={readOnly} />}
      <Button disabled={readOnly} onClick={() => setBrief({ surge: null })}>
        Remove the surge volume
      </Button>
    </>
  )
}

/** The main tank of a surge tank, and the surge tanks of a main one. */
export function LinkedTanks() {
  const designId = useSaving((saving) => saving.designId)
  const opened = useQueryClient().getQueryData<Schemas['DesignOut']>(['design', designId])
  if (!opened?.main && !opened?.surge_tanks.length) return null
  return (
    <Typography variant="body2" data-linked>
      {opened.main && (
        <>
          Surge tank of <Link to={`/designs/${opened.main.id}/brief`}>{opened.main.name}</Link>.{' '}
        </>
      )}
      {opened.surge_tanks.map((tank) => (
        <span key={tank.id}>
          Its surge tank: <Link to={`/designs/${tank.id}/shell`}>{tank.name}</Link>.{' '}
        </span>
      ))}
    </Typography>
  )
}

const FORMS = labelled(declared.SurgeNew.choices.form, { cylinder: 'cylinder, swirl inlet', box: 'box, flat to mount' })

function SurgeTankButton({ readOnly }: { readOnly: boolean }) {
  const designId = useSaving((saving) => saving.designId)
  const go = useNavigate()
  const queries = useQueryClient()
  const [form, setForm] = useState(declared.SurgeNew.defaults.form)
  const make = useMutation({
    mutationFn: async () => {
      if (designId === null || !(await save())) throw new Error('Not saved yet: put that right first.')
      return asked(
        api.POST('/api/designs/{design_id}/surge', {
          params: { path: { design_id: designId } },
          body: { ...declared.SurgeNew.defaults, form },
        }),
      )
    },
    onSuccess: (made) => {
      void queries.invalidateQueries({ queryKey: ['design', designId] })
      void go(`/designs/${made.id}/shell`)
    },
  })
  return (
    <>
      <Choice label="Surge tank as a" value={form} options={FORMS} disabled={readOnly} onChange={setForm} />
      <Button variant="contained" disabled={readOnly || make.isPending} onClick={() => make.mutate()}>
        Make the surge tank as a design of its own
      </Button>
      {make.error && <Alert severity="error">{make.error.message}</Alert>}
    </>
  )
}
