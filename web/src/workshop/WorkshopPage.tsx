import { Alert, Box, Button, TextField, Typography } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import * as declared from '../api/declared'
import { api, asked, Failure, type Schemas } from '../api/client'
import { useSession } from '../app/session'
import { LengthField, NumberField } from '../fields/fields'
import { Brakes } from './Brakes'
import { Cutters } from './Cutters'
import { LineLibrary, PartLibrary, PumpLibrary, SenderLibrary } from './Libraries'
import { HouseRules } from './HouseRules'
import { KStrip } from './KStrip'
import { LeakTests } from './LeakTests'
import { People } from './People'
import { PriceFields } from './PriceFields'
import { workshopQuery } from './query'
import { grid, Section } from './Section'
import { StockTable } from './StockTable'
import { TimeFields } from './TimeFields'
import { Benders, HoseStocks, PriceBook } from './TubeAndHose'

export type Settings = Schemas['WorkshopOut']['settings']

/** The workshop's machines, sheets and house rules: what every design is judged against. */
export default function WorkshopPage() {
  const workshop = useQuery(workshopQuery)
  const session = useSession()
  if (!workshop.data)
    return (
      <Box component="main" sx={{ p: 4 }}>
        {workshop.error ? <Alert severity="error">{workshop.error.message}</Alert> : null}
      </Box>
    )
  return <Form key={workshop.data.version} kept={workshop.data} mayWrite={session.data?.role === 'owner'} />
}

/** The bar that stays on top: what gets the focus is scrolled clear of it. */
const BAR_PX = 72

function Form({ kept, mayWrite }: { kept: Schemas['WorkshopOut']; mayWrite: boolean }) {
  const { inks } = useTheme()
  const [settings, setSettings] = useState<Settings>(kept.settings)
  const queries = useQueryClient()
  const save = useMutation({
    mutationFn: () =>
      asked(
        api.PUT('/api/workshop', {
          body: { base_version: kept.version, settings: settings as unknown as Record<string, unknown> },
        }),
      ),
    onSuccess: (next) => queries.setQueryData(workshopQuery.queryKey, next),
  })
  const usual = kept.usual
  const rolls = settings.rolls ?? {}
  const setRolls = (part: Partial<typeof rolls>) => setSettings({ ...settings, rolls: { ...rolls, ...part } })
  const changed = JSON.stringify(settings) !== JSON.stringify(kept.settings)
  const fault = (path: string) =>
    save.error instanceof Failure ? save.error.faults.find((item) => item.field === path) : undefined
  return (
    <Box
      component="main"
      sx={{ flex: 1, overflowY: 'auto', px: { xs: 2, md: 4 }, py: 3, scrollPaddingTop: `${BAR_PX}px` }}
    >
      <Box
        sx={{
          display: 'flex',
          alignItems: 'center',
          gap: 2,
          mb: 2,
          position: 'sticky',
          top: -24,
          zIndex: 3,
          background: inks.paper,
          py: 1,
        }}
      >
        <Typography variant="h1" sx={{ mr: 'auto', fontSize: '1.6rem' }}>
          {kept.name}
        </Typography>
        {!mayWrite && <Typography color="textSecondary">Only an owner can change these.</Typography>}
        {changed && <Button onClick={() => setSettings(kept.settings)}>Discard changes</Button>}
        {mayWrite && (
          <Button variant="contained" disabled={!changed || save.isPending} onClick={() => save.mutate()}>
            {changed ? 'Save the workshop' : 'Saved'}
          </Button>
        )}
      </Box>
      {save.error && (
        <Alert severity="error" sx={{ mb: 2 }}>
          {save.error.message}
        </Alert>
      )}
      <Section
        title="Brakes"
        about="A part goes to the first that can bend it. A shape that none can make gets a stop, with the change that would make it possible."
      >
        <Brakes settings={settings} mayWrite={mayWrite} fault={fault} onChange={setSettings} />
      </Section>
      <Section title="Slip rolls" about="Cylinders and rolled edges tighter or longer than they take get a stop.">
        <Box sx={grid}>
          <TextField
            label="Name of the rolls"
            value={rolls.name ?? ''}
            disabled={!mayWrite}
            onChange={(event) => setRolls({ name: event.target.value.slice(0, declared.Rolls.most.name) })}
          />
          <LengthField
            label="Longest sheet rolled"
            value={rolls.width_mm ?? null}
            disabled={!mayWrite}
            fault={fault('rolls.width_mm')}
            onCommit={(value) => value !== null && setRolls({ width_mm: value })}
          />
          <LengthField
            label="Tightest outside radius"
            value={rolls.least_radius_mm ?? null}
            disabled={!mayWrite}
            fault={fault('rolls.least_radius_mm')}
            onCommit={(value) => value !== null && setRolls({ least_radius_mm: value })}
          />
        </Box>
      </Section>
      <Section
        title="Cutting"
        about="Shears, nibbler, jigsaw, grinder, hole cutters: each part is told what cuts it by thickness, length and curve. Without any nothing is said."
      >
        <Cutters
          cutters={settings.cutters ?? []}
          disabled={!mayWrite}
          fault={fault}
          onChange={(cutters) => setSettings({ ...settings, cutters })}
        />
      </Section>
      <Section
        title="Tube benders"
        about="Radius and least straight of each die, and a strip bent on it: bend tables of fuel tubes are made for them."
      >
        <Benders
          items={settings.benders ?? []}
          disabled={!mayWrite}
          fault={fault}
          onChange={(benders) => setSettings({ ...settings, benders })}
        />
      </Section>
      <Section
        title="Hose by the metre"
        about="By its card: how tight it may bend, what it bears, what a metre costs. Fuel hoses are cut from them."
      >
        <HoseStocks
          items={settings.hoses ?? []}
          disabled={!mayWrite}
          fault={fault}
          onChange={(hoses) => setSettings({ ...settings, hoses })}
        />
      </Section>
      <Section
        title="Price book"
        about="Fittings, hose ends and grommets by name: bulkhead fitting -6; hose end -6, straight; grommet 13/19, for its line and its hole. Ways through a sheet are priced by it at Lines."
      >
        <PriceBook
          items={settings.price_book ?? []}
          disabled={!mayWrite}
          fault={fault}
          onChange={(price_book) => setSettings({ ...settings, price_book })}
        />
      </Section>
      <PriceFields settings={settings} mayWrite={mayWrite} fault={fault} onChange={setSettings} />
      <TimeFields settings={settings} mayWrite={mayWrite} fault={fault} onChange={setSettings} />
      <Section
        title="K of the bends"
        about="Where the neutral line lies, as a share of the thickness. Your own test strip beats any table."
      >
        <Box sx={grid}>
          {Object.entries(settings.k_factors ?? {}).map(([metal, k]) => (
            <NumberField
              key={metal}
              label={metal}
              value={k}
              disabled={!mayWrite}
              fault={fault(`k_factors.${metal}`)}
              hint={`usual ${usual.k_factors?.[metal as keyof typeof usual.k_factors] ?? ''}`}
              onCommit={(value) =>
                value !== null &&
                setSettings({
                  ...settings,
                  k_factors: { ...settings.k_factors, [metal]: value } as Settings['k_factors'],
                })
              }
            />
          ))}
        </Box>
        <KStrip
          strips={settings.strips ?? []}
          disabled={!mayWrite}
          onChange={(strips) => setSettings({ ...settings, strips })}
        />
      </Section>
      <LeakTests settings={settings} usual={usual} mayWrite={mayWrite} fault={fault} onChange={setSettings} />
      <HouseRules settings={settings} usual={usual} mayWrite={mayWrite} fault={fault} onChange={setSettings} />
      <Section
        title="Pumps"
        about="Flow against pressure at a voltage, from your own measuring or the maker’s sheet: what a design’s demand is held against."
      >
        <PumpLibrary
          items={settings.pumps ?? []}
          disabled={!mayWrite}
          onChange={(pumps) => setSettings({ ...settings, pumps })}
        />
      </Section>
      <Section
        title="Parts at ports"
        about="Hangers, valves, necks and bosses with their own sizes. Picked at Ports; a file’s columns are those of the one you take out."
      >
        <PartLibrary
          items={settings.parts ?? []}
          disabled={!mayWrite}
          onChange={(parts) => setSettings({ ...settings, parts })}
        />
      </Section>
      <Section
        title="Line parts"
        about="Pumps, filters, valves, regulators and rails with their connections and losses. Picked at Lines."
      >
        <LineLibrary
          items={settings.line_parts ?? []}
          disabled={!mayWrite}
          onChange={(line_parts) => setSettings({ ...settings, line_parts })}
        />
      </Section>
      <Section
        title="Senders"
        about="Arms with their stops, tubes, and what they read empty and full. Hung in a tank at Gauge."
      >
        <SenderLibrary
          items={settings.senders ?? []}
          disabled={!mayWrite}
          onChange={(senders) => setSettings({ ...settings, senders })}
        />
      </Section>
      <Section
        title="Stock sheets"
        about="What can be cut from. A part larger than every sheet of its metal and thickness gets a stop."
      >
        <StockTable
          stock={settings.stock ?? []}
          disabled={!mayWrite}
          onChange={(stock) => setSettings({ ...settings, stock })}
        />
      </Section>
      {mayWrite && (
        <Section title="People" about="Owners change everything, fabricators work on jobs, viewers look.">
          <People />
        </Section>
      )}
    </Box>
  )
}
