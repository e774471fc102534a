import {
  Alert,
  Box,
  Button,
  Dialog,
  DialogActions,
  DialogContent,
  DialogTitle,
  List,
  ListItemButton,
  ListItemText,
  Typography,
} from '@mui/material'
import { queryOptions, useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { lazy, Suspense, useState } from 'react'
import { api, asked } from '../api/client'
import { Choice } from '../fields/fields'
import { DifferenceTable } from './ConflictDialog'
import { begin, save, useSaving } from './saving'
import { useWork } from './store'

const OfRevision = lazy(() => import('../floor/OfRevision'))
const NOW = 'now'

const revisionQuery = (designId: number, number: number | null) =>
  queryOptions({
    queryKey: ['revision', designId, number],
    queryFn: () =>
      asked(
        api.GET('/api/designs/{design_id}/revisions/{number}', {
          params: { path: { design_id: designId, number: number ?? 0 } },
        }),
      ),
  })

/** Every save of the design: who, when, how it differs from now or from another, what the shop kept of it; any can be brought back. */
export function RevisionsDialog({ designId, open, onClose }: { designId: number; open: boolean; onClose: () => void }) {
  const [page, setPage] = useState(1)
  const [chosen, setChosen] = useState<number | null>(null)
  const [against, setAgainst] = useState<number | null>(null)
  const revision = useSaving((saving) => saving.revision)
  const design = useWork((work) => work.design)
  const readOnly = useWork((work) => work.readOnly)
  const queries = useQueryClient()
  const path = { design_id: designId }
  const list = useQuery({
    queryKey: ['revisions', designId, page, revision],
    enabled: open,
    queryFn: () => asked(api.GET('/api/designs/{design_id}/revisions', { params: { path, query: { page } } })),
  })
  const old = useQuery({ ...revisionQuery(designId, chosen), enabled: open && chosen !== null })
  const other = useQuery({ ...revisionQuery(designId, against), enabled: open && against !== null })
  const beside = against === null ? design : other.data?.design
  const restore = useMutation({
    mutationFn: async (number: number) => {
      await save()
      return asked(
        api.POST('/api/designs/{design_id}/restore', {
          params: { path },
          body: { base_revision: useSaving.getState().revision, number },
        }),
      )
    },
    onSuccess: (answer) => {
      begin(designId, answer.revision, answer.design, false)
      void queries.invalidateQueries({ queryKey: ['revisions', designId] })
      onClose()
    },
  })
  return (
    <Dialog open={open} onClose={onClose} maxWidth="lg" fullWidth aria-labelledby="revisions-title">
      <DialogTitle id="revisions-title">Revisions</DialogTitle>
      <DialogContent sx={{ display: 'flex', gap: 3, minHeight: 360 }}>
        <Box sx={{ width: 280, flexShrink: 0 }}>
          <List dense sx={{ maxHeight: 420, overflowY: 'auto' }}>
            {list.data?.items.map((item) => (
              <ListItemButton
                key={item.number}
                selected={item.number === chosen}
                onClick={() => setChosen(item.number)}
                sx={{ minHeight: 44 }}
              >
                <ListItemText
                  primary={`r${item.number}${item.note ? `, ${item.note}` : ''}`}
                  secondary={`${new Date(item.saved).toLocaleString('en-GB')} · ${item.author}`}
                />
              </ListItemButton>
            ))}
          </List>
          <Box sx={{ display: 'flex', justifyContent: 'space-between' }}>
            <Button disabled={page === 1} onClick={() => setPage(page - 1)}>
              Newer
            </Button>
            <Button disabled={(list.data?.count ?? 0) <= page * 30} onClick={() => setPage(page + 1)}>
              Older
            </Button>
          </Box>
        </Box>
        <Box sx={{ flex: 1 }}>
          {restore.error && <Alert severity="error">{restore.error.message}</Alert>}
          {chosen === null ? (
            <Typography color="textSecondary" sx={{ pt: 2 }}>
              Choose a revision to see how it differs from now.
            </Typography>
          ) : (
            old.data && (
              <>
                <Box sx={{ maxWidth: 260, my: 1 }}>
                  <Choice
                    label="Compared with"
                    value={against === null ? NOW : String(against)}
                    options={[
                      { value: NOW, label: 'the design as it is now' },
                      ...(list.data?.items ?? [])
                        .filter((item) => item.number !== chosen)
                        .map((item) => ({ value: String(item.number), label: `r${item.number}` })),
                    ]}
                    onChange={(value) => setAgainst(value === NOW ? null : Number(value))}
                  />
                </Box>
                {beside && (
                  <DifferenceTable
                    mine={beside}
                    theirs={old.data.design}
                    titles={[against === null ? 'Now' : `r${against}`, `r${old.data.number}`]}
                  />
                )}
                <Suspense>
                  <OfRevision designId={designId} revision={old.data.number} />
                </Suspense>
              </>
            )
          )}
        </Box>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Close</Button>
        <Button
          variant="contained"
          disabled={chosen === null || readOnly || restore.isPending}
          onClick={() => chosen !== null && restore.mutate(chosen)}
        >
          Restore
        </Button>
      </DialogActions>
    </Dialog>
  )
}
