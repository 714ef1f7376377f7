import { Box, Flex } from '@chakra-ui/react'
import { lazy, Suspense } from 'react'
import { Panel } from '../../../shared/ui/Panel'
import { Link, useNavigate, useParams } from 'react-router'
import { Button } from '../../../shared/ui/Button'
import { sentence } from '../../../shared/api'
import { some } from '../../../shared/format'
import { Kbd } from '../../../shared/ui/Kbd'
import { useKeys } from '../../../shared/keys'
import { Columns, Page } from '../../../shared/ui/Page'
import { PageHeading, usePageTitle } from '../../../shared/ui/PageHead'
import { QueryState } from '../../../shared/ui/QueryState'
import { useOpenWindow } from '../../../shared/useAddressState'
import type { KitPageData } from '../api/kits'
import { useDeleteKit, useKit, useSaveKit } from '../api/kits'
import { moved } from '../model/record'
import { KitAssign } from './KitAssign'
import { KitTitles } from './KitTitles'

const KitWindow = lazy(() => import('./KitWindow').then(part => ({ default: part.KitWindow })))

/** What is in this kit, and who gets it? */
export function KitPage() {
  const { kit: id = '' } = useParams()
  const kit = useKit(id)
  usePageTitle(kit.data?.kit.name)
  return (
    <QueryState alone query={kit} failed="This kit cannot be shown" remedy={<Link to="/catalogue">The catalogue</Link>}>
      {page => <Content page={page} />}
    </QueryState>
  )
}

function Content({ page }: { page: KitPageData }) {
  const { kit } = page
  const navigate = useNavigate()
  const save = useSaveKit()
  const remove = useDeleteKit()
  const [open, setOpen] = useOpenWindow()
  useKeys('The kit', [{ key: 'e', says: 'Edit the kit', act: () => setOpen('edit') }])
  const trouble = save.error ?? remove.error
  return (
    <Page>
      <Flex align="center" gap="3.5">
        <Box flex="1" minW="0">
          <PageHeading>{kit.name}</PageHeading>
          <Box color="ink2" textStyle="compact" truncate>
            {['Kit', some(kit.titles.length, 'title'), kit.description].filter(part => part !== '').join(' · ')}
          </Box>
        </Box>
        {page.assigned.length === 0 && (
          <Button
            loading={remove.isPending}
            onClick={() => remove.mutate(kit.id, { onSuccess: () => void navigate('/catalogue') })}
          >
            Delete
          </Button>
        )}
        <Button onClick={() => setOpen('edit')}>
          Edit <Kbd>E</Kbd>
        </Button>
      </Flex>
      {trouble !== null && (
        <Box color="trouble" role="alert">
          {sentence(trouble)}
        </Box>
      )}
      <Columns>
        <Panel aria-label="Titles" flex="1" minW="0" padded>
          <Flex align="baseline" justify="space-between" mb="2">
            <Box as="h2" fontWeight="700">
              Installed in this order
            </Box>
            <Box color="ink2" textStyle="second">
              drag by the grip, or <Kbd>Alt</Kbd> <Kbd>↑</Kbd> <Kbd>↓</Kbd>
            </Box>
          </Flex>
          <KitTitles
            titles={page.titles.map(title => ({
              id: title.id,
              name: title.name,
              words: [title.maker, title.newest ?? 'nothing offered'].filter(part => part !== '').join(' · '),
            }))}
            onMove={(at, to) =>
              save.mutate({ kit: { ...kit, titles: [...moved(kit.titles, at, to - at)] }, revision: page.revision })
            }
          />
          <Box color="ink2" textStyle="second" mt="2">
            A title that another one needs is installed before it, whatever the order.
          </Box>
        </Panel>
        <KitAssign page={page} />
      </Columns>
      {open === 'edit' && (
        <Suspense fallback={null}>
          <KitWindow
            kit={kit}
            revision={page.revision}
            onClose={() => setOpen(undefined)}
            onSaved={() => setOpen(undefined)}
          />
        </Suspense>
      )}
    </Page>
  )
}
