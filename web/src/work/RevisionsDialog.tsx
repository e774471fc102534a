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
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { api, asked } from '../api/client'
import { DifferenceTable } from './ConflictDialog'
import { begin, save, useSaving } from './saving'
import { useWork } from './store'

/** Every save of the design: who, when, how it differs from now; any can be brought back. */
export function RevisionsDialog({ designId, open, onClose }: { designId: number; open: boolean; onClose: () => void }) {
  const [page, setPage] = useState(1)
  const [chosen, setChosen] = useState<number | null>(null)
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
  const old = useQuery({
    queryKey: ['revision', designId, chosen],
    enabled: open && chosen !== null,
    queryFn: () =>
      asked(
        api.GET('/api/designs/{design_id}/revisions/{number}', { params: { path: { ...path, number: chosen ?? 0 } } }),
      ),
  })
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
              <DifferenceTable mine={design} theirs={old.data.design} titles={['Now', `r${old.data.number}`]} />
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
