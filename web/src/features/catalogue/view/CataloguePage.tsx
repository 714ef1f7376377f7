import { Box, Flex } from '@chakra-ui/react'
import { Panel } from '../../../shared/ui/Panel'
import { lazy, Suspense, useRef, useState } from 'react'
import { Layers } from 'lucide-react'
import { Link, useNavigate } from 'react-router'
import { Button } from '../../../shared/ui/Button'
import { count, some } from '../../../shared/format'
import { Kbd } from '../../../shared/ui/Kbd'
import { useKeys } from '../../../shared/keys'
import { Diamond } from '../../../shared/ui/Diamond'
import { Tick } from '../../../shared/ui/fields'
import { Notice } from '../../../shared/ui/Notice'
import { Columns, Page, side } from '../../../shared/ui/Page'
import { PageHead } from '../../../shared/ui/PageHead'
import type { Asked } from '../../../shared/ui/QueryState'
import { QueryState } from '../../../shared/ui/QueryState'
import { Segments } from '../../../shared/ui/Segments'
import { SearchField } from '../../../shared/ui/TextField'
import { oneOf, text } from '../../../shared/address'
import { useAddressState, useOpenWindow } from '../../../shared/useAddressState'
import { assignAddress } from '../../assign'
import type { TitleLine } from '../api/catalogue'
import { useTitleList } from '../api/catalogue'
import type { KitLine } from '../api/kits'
import { useKits } from '../api/kits'
import { whereWords } from '../model/scope'
import type { By } from '../model/grouped'
import { grouped } from '../model/grouped'
import { TitleIcon } from '../../../shared/ui/TitleIcon'
import { DropPlace } from './DropPlace'

const ByHandWindow = lazy(() => import('./ByHandWindow').then(part => ({ default: part.ByHandWindow })))
const KitWindow = lazy(() => import('./KitWindow').then(part => ({ default: part.KitWindow })))

const CATALOGUE_ADDRESS = { q: text, by: oneOf('category', 'maker') }
const NONE: ReadonlySet<string> = new Set()

/** What software is there? */
export function CataloguePage() {
  const titles = useTitleList()
  const kits = useKits()
  const [{ q: search, by }, change] = useAddressState(CATALOGUE_ADDRESS)
  const [open, setOpen] = useOpenWindow()
  const navigate = useNavigate()
  const field = useRef<HTMLInputElement>(null)
  useKeys('The catalogue', [
    { key: '/', says: 'Search the catalogue', act: () => field.current?.focus() },
    { key: 'n', says: 'Make a title without a file', act: () => setOpen('by-hand') },
  ])
  const [chosen, setChosen] = useState(NONE)
  const choose = (title: string, on: boolean) => {
    const next = new Set(chosen)
    if (on) {
      next.add(title)
    } else {
      next.delete(title)
    }
    setChosen(next)
  }
  const assignChosen = () => {
    const [title, ...also] = chosen
    if (title !== undefined) {
      void navigate(assignAddress({ title, also }))
    }
  }
  const groups = grouped(titles.data ?? [], search, by)
  // Kits stand above the titles: coming later they would move them.
  const listed: Asked<readonly TitleLine[]> = kits.isPending ? { ...titles, data: undefined } : titles
  const found = groups.reduce((sum, group) => sum + group.titles.length, 0)
  return (
    <Page>
      <PageHead heading="Catalogue">
        <Box position="relative" w="360px">
          <SearchField
            ref={field}
            label="Search the catalogue"
            placeholder="Name, maker or what it does"
            value={search}
            onChange={q => change({ q })}
          />
          <Kbd position="absolute" right="2" top="2">
            /
          </Kbd>
        </Box>
        <Box color="ink2" role="status">
          {titles.data !== undefined &&
            (found === titles.data.length
              ? some(found, 'title')
              : `${count(found)} of ${some(titles.data.length, 'title')}`)}
        </Box>
        {chosen.size > 0 && (
          <Button variant="chosen" onClick={assignChosen}>
            <Diamond kind="required" size={11} /> Assign {some(chosen.size, 'title')}…
          </Button>
        )}
        <Box flex="1" />
        <Segments
          label="Grouped by"
          value={by}
          choices={[
            { value: 'category', words: 'By category' },
            { value: 'maker', words: 'By maker' },
          ]}
          onChange={to => change({ by: to })}
        />
      </PageHead>
      <Columns>
        <Panel data-list="" flex="1" minW="0" overflowY="auto">
          <QueryState query={listed} failed="The catalogue cannot be shown">
            {all =>
              found === 0 ? (
                <Notice heading={all.length === 0 ? 'The catalogue is empty' : 'No title matches'}>
                  {all.length === 0
                    ? 'Drop an installer at the right: its name, version, install and removal commands are read from it.'
                    : 'Press Escape in the search to see all titles again.'}
                </Notice>
              ) : (
                <>
                  <KitRows kits={kits.data ?? []} search={search} />
                  {groups.map(group => (
                    <Box key={group.name} as="section">
                      <Box as="h2" px="4" pt="3" pb="1" textStyle="second" color="ink2" fontWeight="700">
                        {group.name === '' ? `Without a ${by}` : group.name}
                      </Box>
                      {group.titles.map(title => (
                        <Row
                          key={title.id}
                          title={title}
                          by={by}
                          chosen={chosen.has(title.id)}
                          onChoose={on => choose(title.id, on)}
                        />
                      ))}
                    </Box>
                  ))}
                </>
              )
            }
          </QueryState>
        </Panel>
        <Box {...side('292px')}>
          <DropPlace words="Drop an installer here to make a title or a release" />
          <Flex mt="2.5" align="center" gap="2.5">
            <Button onClick={() => setOpen('by-hand')}>
              New title… <Kbd>N</Kbd>
            </Button>
            <Box color="ink2" textStyle="second">
              without a file: commands are enough
            </Box>
          </Flex>
          <Flex mt="2" align="center" gap="2.5">
            <Button onClick={() => setOpen('kit')}>New kit…</Button>
            <Box color="ink2" textStyle="second">
              several titles, assigned as one
            </Box>
          </Flex>
          <Box mt="3" textStyle="second" color="ink2">
            Windows Installer, MSIX and set-up programs, Debian and RPM packages, archives and scripts are recognised by
            what is in them, whatever they are called. What is read is filled in for you to check; nothing reaches a
            device until you offer it.
          </Box>
        </Box>
      </Columns>
      {open === 'kit' && (
        <Suspense fallback={null}>
          <KitWindow
            kit={undefined}
            revision={0}
            onClose={() => setOpen(undefined)}
            onSaved={id => void navigate(`/catalogue/kits/${encodeURIComponent(id)}`, { replace: true })}
          />
        </Suspense>
      )}
      {open === 'by-hand' && (
        <Suspense fallback={null}>
          <ByHandWindow title={undefined} onClose={() => setOpen(undefined)} />
        </Suspense>
      )}
    </Page>
  )
}

/** The kits that the search finds. */
function KitRows({ kits, search }: { kits: readonly KitLine[]; search: string }) {
  const words = search.toLowerCase().trim()
  const found = kits.filter(({ kit }) => `${kit.name} ${kit.description}`.toLowerCase().includes(words))
  if (found.length === 0) {
    return null
  }
  return (
    <Box as="section">
      <Box as="h2" px="4" pt="3" pb="1" textStyle="second" color="ink2" fontWeight="700">
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
            <Flex align="center" gap="3" px="4" py="2">
              <Flex w="30px" justify="center" color="lagoon" aria-hidden="true">
                <Layers size={20} />
              </Flex>
              <Box flex="1" minW="0">
                <Box fontWeight="600" truncate>
                  {kit.name}
                </Box>
                <Box color="ink2" textStyle="second" truncate>
                  {kit.description}
                </Box>
              </Box>
              <Box w="150px" textStyle="compact">
                {some(kit.titles.length, 'title')}
              </Box>
              <Box w="224px" textStyle="compact" color="ink2" textAlign="right">
                {assigned === 0 ? 'not assigned' : some(assigned, 'assignment')}
              </Box>
            </Flex>
          </Link>
        </Box>
      ))}
    </Box>
  )
}

interface RowProps {
  title: TitleLine
  by: By
  /** Whether it is one of those that are assigned together. */
  chosen: boolean
  onChoose: (on: boolean) => void
}

function Row({ title, by, chosen, onChoose }: RowProps) {
  return (
    <Flex
      align="center"
      pl="3"
      borderTopWidth="1px"
      borderColor="line"
      css={{
        '& a:hover': { background: 'var(--chakra-colors-hover)' },
        '& a': { display: 'block', flex: 1, minWidth: 0 },
      }}
    >
      <Tick label={`Choose ${title.name}`} labelHidden on={chosen} onChange={onChoose} />
      <Link to={`/catalogue/${encodeURIComponent(title.id)}`}>
        <Flex align="center" gap="3" px="4" py="2">
          <TitleIcon name={title.name} icon={title.icon} size={30} />
          <Box flex="1" minW="0">
            <Box fontWeight="600" truncate>
              {title.name}
            </Box>
            <Box color="ink2" textStyle="second" truncate>
              {[by === 'category' ? title.maker : title.category, title.description].filter(t => t !== '').join(' · ')}
            </Box>
          </Box>
          <Box w="150px" textStyle="compact">
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
          <Box w="120px" textStyle="compact" color="ink2" textAlign="right">
            {whereWords(title.scope, title.devices)}
          </Box>
          <Box w="92px" textStyle="compact" textAlign="right" color={title.needs > 0 ? 'ochre' : 'ink3'}>
            {title.needs > 0 ? `${title.needs} to look at` : 'ready'}
          </Box>
        </Flex>
      </Link>
    </Flex>
  )
}
