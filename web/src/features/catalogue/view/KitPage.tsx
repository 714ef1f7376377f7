import { Box, Flex } from '@chakra-ui/react'
import { useEffect, useState } from 'react'
import { Link, useNavigate, useParams } from 'react-router'
import { Button } from '../../../shared/Button'
import { sentence } from '../../../shared/api'
import { failure } from '../../../shared/failure'
import { some } from '../../../shared/format'
import { Kbd } from '../../../shared/Kbd'
import { useKeys } from '../../../shared/keys'
import { Notice } from '../../../shared/Notice'
import type { KitPageData } from '../api/kits'
import { useDeleteKit, useKit, useSaveKit } from '../api/kits'
import { moved } from '../model/record'
import { KitAssign } from './KitAssign'
import { KitTitles } from './KitTitles'
import { KitWindow } from './KitWindow'

/** What is in this kit, and who gets it? */
export function KitPage() {
  const { kit: id = '' } = useParams()
  const kit = useKit(id)
  useEffect(() => {
    if (kit.data !== undefined) {
      document.title = `${kit.data.kit.name} · Rivo`
    }
  }, [kit.data])
  if (failure(kit) !== undefined) {
    return (
      <Notice heading="This kit cannot be shown">
        {sentence(kit.error)} <Link to="/catalogue">The catalogue</Link>
      </Notice>
    )
  }
  return kit.data === undefined ? null : <Page page={kit.data} />
}

function Page({ page }: { page: KitPageData }) {
  const { kit } = page
  const navigate = useNavigate()
  const save = useSaveKit()
  const remove = useDeleteKit()
  const [editing, setEditing] = useState(false)
  useKeys('The kit', [{ key: 'e', says: 'Edit the kit', act: () => setEditing(true) }])
  const trouble = save.error ?? remove.error
  return (
    <Flex direction="column" h="100%" px="18px" pt="14px" pb="16px" gap="14px" overflowY="auto">
      <Flex align="center" gap="14px">
        <Box flex="1" minW="0">
          <Box as="h1" fontSize="20px" fontWeight="700" truncate>
            {kit.name}
          </Box>
          <Box color="ink2" fontSize="13px" truncate>
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
        <Button onClick={() => setEditing(true)}>
          Edit <Kbd>E</Kbd>
        </Button>
      </Flex>
      {trouble !== null && (
        <Box color="trouble" role="alert">
          {sentence(trouble)}
        </Box>
      )}
      <Flex flex="1" minH="0" gap="16px" align="flex-start">
        <Box
          as="section"
          aria-label="Titles"
          flex="1"
          minW="0"
          bg="panel"
          borderWidth="1px"
          borderColor="line"
          borderRadius="8px"
          p="12px 18px"
        >
          <Flex align="baseline" justify="space-between" mb="8px">
            <Box as="h2" fontWeight="700">
              Installed in this order
            </Box>
            <Box color="ink2" fontSize="12.3px">
              drag, or <Kbd>Alt</Kbd> <Kbd>↑</Kbd> <Kbd>↓</Kbd>
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
          <Box color="ink2" fontSize="12.3px" mt="8px">
            A title that another one needs is installed before it, whatever the order.
          </Box>
        </Box>
        <KitAssign page={page} />
      </Flex>
      {editing && (
        <KitWindow
          kit={kit}
          revision={page.revision}
          onClose={() => setEditing(false)}
          onSaved={() => setEditing(false)}
        />
      )}
    </Flex>
  )
}
