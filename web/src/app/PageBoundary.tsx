import type { ReactNode } from 'react'
import { Component, Suspense } from 'react'
import { useLocation } from 'react-router'
import { Button } from '../shared/Button'
import { Notice } from '../shared/Notice'

/** Keeps a page that fails from taking the head and the draft with it; going to another page leaves the failure behind. */
export function PageBoundary({ children }: { children: ReactNode }) {
  const { pathname } = useLocation()
  return (
    <Boundary key={pathname.split('/')[1]}>
      <Suspense fallback={null}>{children}</Suspense>
    </Boundary>
  )
}

class Boundary extends Component<{ children: ReactNode }, { failed: boolean }> {
  override state = { failed: false }

  static getDerivedStateFromError() {
    return { failed: true }
  }

  override render() {
    return this.state.failed ? (
      <Notice heading="This page could not be shown">
        Nothing was lost: your draft is on the server. Rivo may have been updated while the page was open.{' '}
        <Button onClick={() => window.location.reload()}>Load it again</Button>
      </Notice>
    ) : (
      this.props.children
    )
  }
}
