import { Box, Flex, Input } from '@chakra-ui/react'
import { useEffect, useRef, useState } from 'react'
import { Layers } from 'lucide-react'
import { Link, useNavigate, useSearchParams } from 'react-router'
import { Button } from '../../../shared/Button'
import { sentence } from '../../../shared/api'
import { failure } from '../../../shared/failure'
import { count, some } from '../../../shared/format'
import { Kbd } from '../../../shared/Kbd'
import { useKeys } from '../../../shared/keys'
import { Notice } from '../../../shared/Notice'
import type { TitleLine } from '../api/catalogue'
import { useTitleList } from '../api/catalogue'
import { useKits } from '../api/kits'
import type { By } from '../model/grouped'
import { grouped } from '../model/grouped'
import { ByHandWindow } from './ByHandWindow'
import { DropZone } from './DropZone'
import { NewKit } from './KitWindow'
import { TitleIcon } from './TitleIcon'

/** What software is there? */
export function CataloguePage() {
  const titles = useTitleList()
  const [parameters, setParameters] = useSearchParams()
  const search = parameters.get('q') ?? ''
  const navigate = useNavigate()
  const by: By = parameters.get('by') === 'maker' ? 'maker' : 'category'
  const field = useRef<HTMLInputElement>(null)
  useEffect(() => {
    document.title = 'Catalogue · Rivo'
  }, [])
  const [byHand, setByHand] = useState(false)
  useKeys('The catalogue', [
    { key: '/', says: 'Search the catalogue', act: () => field.current?.focus() },
    { key: 'n', says: 'Make a title without a file', act: () => setByHand(true) },
  ])
  const set = (name: string, value: string) => {
    const next = new URLSearchParams(window.location.search)
    if (value === '') {
      next.delete(name)
    } else {
      next.set(name, value)
    }
    setParameters(next, { replace: true })
  }
  if (failure(titles) !== undefined) {
    return <Notice heading="The catalogue cannot be shown">{sentence(titles.error)}</Notice>
  }
  const groups = grouped(titles.data ?? [], search, by)
  const found = groups.reduce((sum, group) => sum + group.titles.length, 0)
  return (
    <Flex direction="column" h="100%" px="18px" pt="14px" pb="16px" gap="12px">
      <Flex align="center" gap="14px">
        <Box as="h1" fontSize="20px" fontWeight="700">
          Catalogue
        </Box>
        <Box position="relative" w="360px">
          <Input
            ref={field}
            aria-label="Search the catalogue"
            placeholder="Name, maker or what it does"
            value={search}
            onChange={event => set('q', event.target.value)}
            onKeyDown={event => event.key === 'Escape' && set('q', '')}
            h="32px"
            px="10px"
            bg="panel"
            borderColor="line"
          />
          <Kbd position="absolute" right="8px" top="7px">
            /
          </Kbd>
        </Box>
        <Box color="ink2">
          {titles.data !== undefined &&
            (found === titles.data.length
              ? some(found, 'title')
              : `${count(found)} of ${some(titles.data.length, 'title')}`)}
        </Box>
        <Box flex="1" />
        <Flex role="group" aria-label="Grouped by">
          <Button
            variant={by === 'category' ? 'chosen' : 'plain'}
            aria-pressed={by === 'category'}
            onClick={() => set('by', '')}
          >
            By category
          </Button>
          <Button
            variant={by === 'maker' ? 'chosen' : 'plain'}
            aria-pressed={by === 'maker'}
            onClick={() => set('by', 'maker')}
          >
            By maker
          </Button>
        </Flex>
      </Flex>
      <Flex flex="1" minH="0" gap="16px">
        <Box flex="1" minW="0" overflowY="auto" bg="panel" borderWidth="1px" borderColor="line" borderRadius="8px">
          {titles.data !== undefined && found === 0 ? (
            <Notice heading={titles.data.length === 0 ? 'The catalogue is empty' : 'No title matches'}>
              {titles.data.length === 0
                ? 'Drop an installer at the right: its name, version, install and removal commands are read from it.'
                : 'Press Escape in the search to see all titles again.'}
            </Notice>
          ) : (
            <>
              <KitRows search={search} />
              {groups.map(group => (
                <Box key={group.name} as="section">
                  <Box as="h2" px="16px" pt="12px" pb="4px" fontSize="12.3px" color="ink2" fontWeight="700">
                    {group.name === '' ? `Without a ${by}` : group.name}
                  </Box>
                  {group.titles.map(title => (
                    <Row key={title.id} title={title} by={by} />
                  ))}
                </Box>
              ))}
            </>
          )}
        </Box>
        <Box w="292px" flexShrink="0">
          <DropZone words="Drop an installer here to make a title or a release" />
          <Flex mt="10px" align="center" gap="10px">
            <Button onClick={() => setByHand(true)}>
              New title… <Kbd>N</Kbd>
            </Button>
            <Box color="ink2" fontSize="12.3px">
              without a file: commands are enough
            </Box>
          </Flex>
          <Flex mt="8px" align="center" gap="10px">
            <NewKit onSaved={id => void navigate(`/catalogue/kits/${encodeURIComponent(id)}`)} />
            <Box color="ink2" fontSize="12.3px">
              several titles, assigned as one
            </Box>
          </Flex>
          <Box mt="12px" fontSize="12.3px" color="ink2">
            Windows Installer, MSIX and set-up programs, Debian and RPM packages, archives and scripts are recognised by
            what is in them, whatever they are called. What is read is filled in for you to check; nothing reaches a
            device until you offer it.
          </Box>
        </Box>
      </Flex>
      {byHand && <ByHandWindow title={undefined} onClose={() => setByHand(false)} />}
    </Flex>
  )
}

/** The kits that the search finds. */
function KitRows({ search }: { search: string }) {
  const kits = useKits()
  const words = search.toLowerCase().trim()
  const found = (kits.data ?? []).filter(({ kit }) => `${kit.name} ${kit.description}`.toLowerCase().includes(words))
  if (found.length === 0) {
    return null
  }
  return (
    <Box as="section">
      <Box as="h2" px="16px" pt="12px" pb="4px" fontSize="12.3px" color="ink2" fontWeight="700">
        Kits
      </Box>
      {found.map(({ kit, assigned }) => (
        <Box
          key={kit.id}
          borderTopWidth="1px"
          borderColor="line"
          css={{ '& a:hover': { background: 'var(--chakra-colors-hover)' }, '& a': { display: 'block' } }}
        >
          <Link to={`/catalogue/kits/${encodeURIComponent(kit.id)}`}>
            <Flex align="center" gap="12px" px="16px" py="7px">
              <Flex w="30px" justify="center" color="lagoon" aria-hidden="true">
                <Layers size={20} />
              </Flex>
              <Box flex="1" minW="0">
                <Box fontWeight="600" truncate>
                  {kit.name}
                </Box>
                <Box color="ink2" fontSize="12.3px" truncate>
                  {kit.description}
                </Box>
              </Box>
              <Box w="150px" fontSize="13px">
                {some(kit.titles.length, 'title')}
              </Box>
              <Box w="224px" fontSize="13px" color="ink2" textAlign="right">
                {assigned === 0 ? 'not assigned' : some(assigned, 'assignment')}
              </Box>
            </Flex>
          </Link>
        </Box>
      ))}
    </Box>
  )
}

function Row({ title, by }: { title: TitleLine; by: By }) {
  return (
    <Box
      borderTopWidth="1px"
      borderColor="line"
      css={{ '& a:hover': { background: 'var(--chakra-colors-hover)' }, '& a': { display: 'block' } }}
    >
      <Link to={`/catalogue/${encodeURIComponent(title.id)}`}>
        <Flex align="center" gap="12px" px="16px" py="7px">
          <TitleIcon name={title.name} icon={title.icon} size={30} />
          <Box flex="1" minW="0">
            <Box fontWeight="600" truncate>
              {title.name}
            </Box>
            <Box color="ink2" fontSize="12.3px" truncate>
              {[by === 'category' ? title.maker : title.category, title.description].filter(t => t !== '').join(' · ')}
            </Box>
          </Box>
          <Box w="150px" fontSize="13px">
            {title.newest === undefined ? (
              <Box color="ink2">nothing offered</Box>
            ) : (
              <>
                <b>{title.newest}</b>
                {title.releases > 1 && (
                  <Box as="span" color="ink2">
                    {' '}
                    of {some(title.releases, 'release')}
                  </Box>
                )}
              </>
            )}
          </Box>
          <Box w="120px" fontSize="13px" color="ink2" textAlign="right">
            {title.devices === 0 ? 'on no device' : `on ${some(title.devices, 'device')}`}
          </Box>
          <Box w="92px" fontSize="13px" textAlign="right" color={title.needs > 0 ? 'ochre' : 'ink3'}>
            {title.needs > 0 ? `${title.needs} to look at` : 'ready'}
          </Box>
        </Flex>
      </Link>
    </Box>
  )
}
