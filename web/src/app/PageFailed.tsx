import { Button } from '../shared/ui/Button'
import { Notice } from '../shared/ui/Notice'

/** Stands in the place of a page that failed, whether it could not be fetched or not be drawn. */
export function PageFailed() {
  return (
    <Notice alone heading="This page could not be shown">
      Nothing was lost: your draft is on the server. Rivo may have been updated while the page was open.{' '}
      <Button onClick={() => window.location.reload()}>Load it again</Button>
    </Notice>
  )
}
