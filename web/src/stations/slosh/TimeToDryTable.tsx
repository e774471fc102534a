import { Alert, Button } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { useMutation } from '@tanstack/react-query'
import { api, asked } from '../../api/client'
import { useUnits } from '../../units/useUnits'
import { useWork } from '../../work/store'
import { Block, Sheet } from '../Board'

/** How long a held push takes to run the pickup dry: what baffles buy. */
export function TimeToDryTable() {
  const units = useUnits()
  const { inks } = useTheme()
  const design = useWork((work) => work.design)
  const kind = design.slosh.manoeuvre.kind
  const ask = useMutation({
    mutationFn: async () => ({
      of: design,
      found: await asked(
        api.POST('/api/slosh/time-to-dry', { body: { design: design as unknown as Record<string, unknown> } }),
      ),
    }),
  })
  const found = ask.data?.found
  const stale = ask.data !== undefined && ask.data.of !== design
  return (
    <Block
      title={`How long until it runs dry: ${kind}, held`}
      about="Baffles buy time, not staying power: this is the time. A dash is never within 20 s."
    >
      <Button variant="outlined" disabled={ask.isPending} onClick={() => ask.mutate()} sx={{ my: 1 }}>
        {ask.isPending ? 'Timing' : stale ? 'The tank has changed: time it again' : 'Time it'}
      </Button>
      {ask.error && <Alert severity="error">{ask.error.message}</Alert>}
      {found && (
        <Sheet
          label="Seconds until dry"
          width={720}
          columns={[
            { name: 'Held at' },
            ...found.fills.map((fill) => ({ name: `${units.number(fill * 100, 0)} % full`, right: true })),
          ]}
          rows={found.pushes_g.map((g, row) => ({
            key: `${g}`,
            cells: [
              `${units.number(g, 1)} g`,
              ...(found.seconds[row] ?? []).map((seconds, n) =>
                seconds === null ? (
                  '–'
                ) : (
                  <span
                    key={n}
                    style={{ color: seconds < 3 ? inks.stop : undefined, fontWeight: seconds < 3 ? 650 : undefined }}
                  >
                    {seconds === 0 ? 'at once' : `${units.number(seconds, 1)} s`}
                  </span>
                ),
              ),
            ],
          }))}
        />
      )}
    </Block>
  )
}
