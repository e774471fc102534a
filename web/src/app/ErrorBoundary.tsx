import { Button } from '@mui/material'
import { Component, type ReactNode } from 'react'
import { Message } from './Message'

interface Props {
  title: string
  children: ReactNode
}

/** What breaks inside is told here, with a way back; the rest of the page goes on. */
export class ErrorBoundary extends Component<Props, { error: Error | null }> {
  override state = { error: null as Error | null }

  static getDerivedStateFromError(error: Error) {
    return { error }
  }

  override render() {
    if (!this.state.error) return this.props.children
    return (
      <Message
        title={this.props.title}
        text={`Nothing you saved is lost. What the browser says: ${this.state.error.message}`}
      >
        <Button variant="contained" onClick={() => window.location.reload()}>
          Load the page again
        </Button>
      </Message>
    )
  }
}
