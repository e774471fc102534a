import { Alert, Box, Button } from '@mui/material'
import { useState } from 'react'
import { handOver } from '../plots/picture'
import { save, useSaving } from '../work/saving'
import { useWork } from '../work/store'

export interface File {
  name: string
  label: string
  /** Where it is had, where that isn't among the design's own files. */
  under?: string
}

/** What a file is, where what it is of stands beside it. */
const kindOf = (name: string) =>
  name.startsWith('send-out-') ? 'Page to send' : (name.split('.').at(-1) ?? name).toUpperCase()

/** Files of what is on screen: saved first, so that file and screen agree. */
export function Downloads({ files, compact = false }: { files: File[]; compact?: boolean }) {
  const designId = useSaving((saving) => saving.designId)
  const [problem, setProblem] = useState('')
  const take = async ({ name, under = 'files' }: File) => {
    setProblem('')
    const readOnly = useWork.getState().readOnly
    if (!readOnly && !(await save())) {
      setProblem('Not saved yet, so there is no file of what you see. Put that right first.')
      return
    }
    const answer = await fetch(`/api/designs/${designId}/${under}/${name}`).catch(() => null)
    if (!answer?.ok) {
      const body = (await answer?.json().catch(() => null)) as { message?: string } | null
      setProblem(body?.message ?? 'The file could not be fetched.')
      return
    }
    handOver(
      await answer.blob(),
      /filename="([^"]+)"/.exec(answer.headers.get('Content-Disposition') ?? '')?.[1] ?? name,
    )
  }
  return (
    <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1 }}>
      {files.map((file) => (
        <Button
          key={file.name}
          variant={compact ? 'text' : 'outlined'}
          size={compact ? 'small' : 'medium'}
          data-file={file.name}
          aria-label={file.label}
          sx={compact ? { minWidth: 0, minHeight: 28, px: 1, py: 0 } : null}
          onClick={() => void take(file)}
        >
          {compact ? kindOf(file.name) : file.label}
        </Button>
      ))}
      {problem && (
        <Alert severity="error" sx={{ width: '100%' }}>
          {problem}
        </Alert>
      )}
    </Box>
  )
}
