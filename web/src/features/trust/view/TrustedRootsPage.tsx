import { Box } from '@chakra-ui/react'
import { lazy, Suspense, useState } from 'react'
import { sentence } from '../../../shared/api'
import { dateWithYear } from '../../../shared/format'
import { useKeys } from '../../../shared/keys'
import { Button } from '../../../shared/ui/Button'
import { Kbd } from '../../../shared/ui/Kbd'
import { ListRow } from '../../../shared/ui/ListRow'
import { Notice } from '../../../shared/ui/Notice'
import { Page } from '../../../shared/ui/Page'
import { PageHead } from '../../../shared/ui/PageHead'
import { Panel } from '../../../shared/ui/Panel'
import { QueryState } from '../../../shared/ui/QueryState'
import { useOpenWindow } from '../../../shared/useAddressState'
import type { TrustedRoot } from '../api/roots'
import { useDeleteRoot, useTrustedRoots } from '../api/roots'

const AddRootWindow = lazy(() => import('./AddRootWindow').then(part => ({ default: part.AddRootWindow })))

/** Whose signatures does Rivo trust? */
export function TrustedRootsPage() {
  const roots = useTrustedRoots()
  const [open, setOpen] = useOpenWindow()
  useKeys('Trusted roots', [{ key: 'n', says: 'Trust a root', act: () => setOpen('new') }])
  return (
    <Page>
      <PageHead heading="Trusted roots">
        <Box flex="1" minW="0" color="ink2" textStyle="compact">
          The certificates that signers of installers are traced to, and the OpenPGP keys by which packages are signed.
        </Box>
        <Button onClick={() => setOpen('new')}>
          Trust a root <Kbd>N</Kbd>
        </Button>
      </PageHead>
      <Panel data-list="" flex="1" minH="0" overflowY="auto">
        <QueryState query={roots} failed="The trusted roots cannot be shown">
          {all =>
            all.length === 0 ? (
              <Notice heading="No root is trusted yet: of a signed file it is only known that it was not changed">
                Add the root certificates that your makers’ certificates were issued by, and the OpenPGP keys of your
                package sources.
              </Notice>
            ) : (
              all.map(root => <Row key={root.id} root={root} />)
            )
          }
        </QueryState>
      </Panel>
      {open === 'new' && (
        <Suspense fallback={null}>
          <AddRootWindow onClose={() => setOpen(undefined)} />
        </Suspense>
      )}
    </Page>
  )
}

function Row({ root }: { root: TrustedRoot }) {
  const remove = useDeleteRoot()
  const [asked, setAsked] = useState(false)
  return (
    <ListRow name={root.name} below={`SHA-256 ${root.id}`}>
      <Box w="220px" color="ink2">
        {root.kind === 'certificate' ? 'certificate' : 'OpenPGP key'}
        {root.until === undefined ? '' : `, until ${dateWithYear(root.until)}`}
      </Box>
      <Box w="240px" color="ink2" truncate>
        {root.addedBy}, {dateWithYear(root.addedAt)}
      </Box>
      {remove.isError && (
        <Box color="trouble" textStyle="second" role="alert">
          {sentence(remove.error)}
        </Box>
      )}
      {asked ? (
        <>
          <Button loading={remove.isPending} onClick={() => remove.mutate(root.id)}>
            Do not trust it
          </Button>
          <Button onClick={() => setAsked(false)}>Keep it</Button>
        </>
      ) : (
        <Button onClick={() => setAsked(true)} aria-label={`Do not trust ${root.name} any more`}>
          Delete
        </Button>
      )}
    </ListRow>
  )
}
