import type { ReactNode } from 'react'
import { useCallback, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { sentence } from '../../../shared/api'
import { failure } from '../../../shared/failure'
import { fromNow, fullInstant, some } from '../../../shared/format'
import type { Column } from '../../../shared/table/columns'
import { nextOrder, orderOf, orderText } from '../../../shared/table/columns'
import { DataTable } from '../../../shared/table/DataTable'
import { Button } from '../../../shared/ui/Button'
import { Later } from '../../../shared/ui/Later'
import { Notice } from '../../../shared/ui/Notice'
import { Progress } from '../../../shared/ui/Progress'
import { say } from '../../../shared/ui/Toasts'
import { useOpenWindow } from '../../../shared/useAddressState'
import { useNow } from '../../../shared/useNow'
import { AssignWindow } from '../../assign'
import { KeepWindow } from '../../audience'
import type { DeviceRow, Filter } from '../api/fleet'
import { csvAddress, PAGE, useDevicePages, useLiveRows } from '../api/fleet'

const CLOCK_MS = 5000
/** So many devices an assignment names one by one. */
const MOST_NAMED = 100
const DIM: readonly DeviceRow['state'][] = ['idle', 'not-seen-lately', 'never']

const COLUMNS: readonly Column<DeviceRow>[] = [
  {
    id: 'name',
    head: 'device',
    width: '130px',
    sortable: true,
    always: true,
    cell: row => (
      <a className="opens" href={`/fleet/${encodeURIComponent(row.id)}`} tabIndex={-1}>
        <b>{row.name}</b>
      </a>
    ),
  },
  {
    id: 'ou',
    head: 'organisational unit',
    width: 'minmax(180px, 1.1fr)',
    sortable: true,
    cell: row => <Dim title={row.ou}>{row.ou === '' ? 'outside every OU' : row.ou}</Dim>,
  },
  { id: 'person', head: 'people', width: 'minmax(120px, 0.8fr)', sortable: true, cell: row => <People row={row} /> },
  { id: 'doing', head: 'doing', width: 'minmax(240px, 1.6fr)', cell: row => <Doing row={row} /> },
  {
    id: 'last-seen',
    head: 'last seen',
    width: '92px',
    sortable: true,
    right: true,
    cell: row => <Seen lastSeen={row.lastSeen} />,
  },
]
const NAMES = COLUMNS.map(column => column.id)
const NOTHING: ReadonlyMap<string, string> = new Map()

/** Of a title for each person, a figure counts people; the list has their devices. */
function countWords(devices: number, people: number | undefined): string {
  return people === undefined
    ? some(devices, 'device')
    : `${some(people, 'person', 'people')} on ${some(devices, 'device')}`
}

interface Props {
  filter: Filter
  change: (part: Partial<Filter>) => void
}

/** The devices, as many as there are; only the pages that are looked at are fetched. */
export function DeviceList({ filter, change }: Props) {
  const [looked, setLooked] = useState({ first: 0, last: 0 })
  const { order: _, ...narrowed } = filter
  const [chosen, choose] = useChosen(JSON.stringify(narrowed))
  const navigate = useNavigate()
  const numbers = pagesOf(looked)
  const pages = useDevicePages(filter, numbers)
  const first = pages[0]
  const rowAt = (index: number) => pages[numbers.indexOf(Math.floor(index / PAGE))]?.data?.rows[index % PAGE]
  useLiveRows(shownIds(looked, rowAt))
  const look = useCallback((from: number, to: number) => setLooked({ first: from, last: to }), [])
  if (first !== undefined && failure(first) !== undefined) {
    return (
      <Notice heading="The list cannot be shown">
        {sentence(first.error)}{' '}
        <Button onClick={() => void first.refetch()} loading={first.isFetching}>
          Try again
        </Button>
      </Notice>
    )
  }
  const total = first?.data?.total
  const order = orderOf(filter.order, NAMES)
  return (
    <DataTable
      label="Devices"
      name="devices"
      width="860px"
      columns={COLUMNS}
      total={total}
      count={total === undefined ? 'devices' : countWords(total, first?.data?.people)}
      rowAt={rowAt}
      idOf={row => row.id}
      onLook={look}
      order={order}
      onOrder={column => change({ order: orderText(nextOrder(order, column)) })}
      onOpen={row => void navigate(`/fleet/${encodeURIComponent(row.id)}`)}
      chosen={{
        ids: new Set(chosen.keys()),
        set: ids =>
          choose(
            ids,
            pages.flatMap(page => page.data?.rows ?? []),
          ),
        acts: <ChosenActs chosen={chosen} />,
      }}
      csv={csvAddress(filter)}
      empty={
        <Notice heading="No device matches">
          Take a word out of the field above, or choose <Link to="/fleet">all devices</Link>.
        </Notice>
      }
    />
  )
}

/** The names of the chosen devices by their ids, which stay known when their pages have been left; none when the list is another one. */
function useChosen(list: string) {
  const [chosen, setChosen] = useState({ list, names: NOTHING })
  const names = chosen.list === list ? chosen.names : NOTHING
  const choose = (ids: ReadonlySet<string>, rows: readonly DeviceRow[]) => {
    const loaded = new Map(rows.map(row => [row.id, row.name]))
    setChosen({ list, names: new Map([...ids].map(id => [id, names.get(id) ?? loaded.get(id) ?? id])) })
  }
  return [names, choose] as const
}

/** The first page is always among them: it says how many there are. */
function pagesOf({ first, last }: { first: number; last: number }): readonly number[] {
  const from = Math.floor(first / PAGE)
  const to = Math.floor(last / PAGE)
  return [...new Set([0, ...Array.from({ length: to - from + 1 }, (_, i) => from + i)])]
}

function shownIds({ first, last }: { first: number; last: number }, rowAt: (index: number) => DeviceRow | undefined) {
  return Array.from({ length: last - first + 1 }, (_, i) => rowAt(first + i)?.id ?? '').filter(id => id !== '')
}

/** What one does with the chosen devices: assign to them, keep them together, copy their names. */
function ChosenActs({ chosen }: { chosen: ReadonlyMap<string, string> }) {
  const [open, setOpen] = useOpenWindow()
  const ids = [...chosen.keys()]
  const holds = some(ids.length, 'device')
  return (
    <>
      <Button
        size="xs"
        onClick={() => setOpen('assign')}
        disabled={ids.length > MOST_NAMED}
        title={ids.length > MOST_NAMED ? 'So many are assigned to better as a collection' : undefined}
      >
        Assign…
      </Button>
      <Button size="xs" onClick={() => setOpen('keep')}>
        Keep as a collection…
      </Button>
      <CopyNames names={[...chosen.values()]} />
      <Later open={open === 'assign'}>
        {open === 'assign' && (
          <AssignWindow
            name={holds}
            targets={ids.map(id => `device:${id}`)}
            follows="device"
            onClose={() => setOpen(undefined)}
          />
        )}
      </Later>
      <Later open={open === 'keep'}>
        {open === 'keep' && (
          <KeepWindow
            name=""
            holds={`${holds}, picked by hand.`}
            of={{ include: ids }}
            onClose={() => setOpen(undefined)}
          />
        )}
      </Later>
    </>
  )
}

function CopyNames({ names }: { names: readonly string[] }) {
  const copy = () => {
    void navigator.clipboard.writeText(names.join('\n')).then(() => say(`${some(names.length, 'name')} copied`))
  }
  return (
    <Button size="xs" onClick={copy}>
      Copy their names
    </Button>
  )
}

function Dim({ title, children }: { title?: string; children: ReactNode }) {
  return (
    <span className="dim" title={title}>
      {children}
    </span>
  )
}

function People({ row }: { row: DeviceRow }) {
  return (
    <Dim title={row.people.join(', ')}>
      {row.people[0] ?? '–'}
      {row.people.length > 1 && ` and ${row.people.length - 1} more`}
    </Dim>
  )
}

function Doing({ row }: { row: DeviceRow }) {
  const look = row.state === 'failed' ? 'trouble' : DIM.includes(row.state) ? 'faint' : ''
  return (
    <div className={`beside ${look}`}>
      {row.percent !== undefined && <Progress percent={row.percent} label={row.line} width="70px" />}
      <span title={row.line}>{row.line}</span>
    </div>
  )
}

function Seen({ lastSeen }: { lastSeen: string | undefined }) {
  const now = useNow(CLOCK_MS)
  return lastSeen === undefined ? <Dim>never</Dim> : <Dim title={fullInstant(lastSeen)}>{fromNow(lastSeen, now)}</Dim>
}
