import { Box, Flex, Grid } from '@chakra-ui/react'
import type { ReactNode } from 'react'
import { useState } from 'react'
import { useForm } from 'react-hook-form'
import { AudiencePicker } from '../../features/audience'
import { TitlePicker } from '../../features/catalogue'
import { outcomeWords, SHOWN } from '../../shared/outcomes'
import type { Column } from '../../shared/table/columns'
import { nextOrder, type Order } from '../../shared/table/columns'
import { DataTable } from '../../shared/table/DataTable'
import { Button } from '../../shared/ui/Button'
import { Diamond } from '../../shared/ui/Diamond'
import { FormNumber, FormRule, FormText, Tick } from '../../shared/ui/fields'
import { FormWindow } from '../../shared/ui/FormWindow'
import { Kbd } from '../../shared/ui/Kbd'
import { Notice } from '../../shared/ui/Notice'
import { PageHead } from '../../shared/ui/PageHead'
import { Panel, PanelHead, PanelPart } from '../../shared/ui/Panel'
import { Progress } from '../../shared/ui/Progress'
import { QueryState } from '../../shared/ui/QueryState'
import { Segments } from '../../shared/ui/Segments'
import { SortableList } from '../../shared/ui/SortableList'
import { StackBar } from '../../shared/ui/StackBar'
import { say } from '../../shared/ui/Toasts'
import { bandFill } from '../../shared/bandFill'

/** Every shared part in its states, for whoever builds or changes one. Only while developing. */
export function GalleryPage() {
  return (
    <Box h="100%" overflowY="auto" px="4.5" py="3.5">
      <PageHead heading="Gallery">
        <Box color="ink2">the shared parts, each in its states; the theme is changed behind the initials</Box>
      </PageHead>
      <Grid templateColumns="1fr 1fr" gap="4" mt="3">
        <Buttons />
        <Outcomes />
        <Fields />
        <Pickers />
        <Waiting />
        <Ordered />
        <List />
        <Windows />
      </Grid>
    </Box>
  )
}

function Part({ heading, children }: { heading: string; children: ReactNode }) {
  return (
    <Panel padded>
      <PanelHead heading={heading} aside="shared" />
      {children}
    </Panel>
  )
}

function Buttons() {
  return (
    <Part heading="Buttons">
      {(['plain', 'chosen', 'honey', 'text'] as const).map(variant => (
        <Flex key={variant} gap="2" mb="2" align="center">
          {(['xs', 'sm', 'md', 'lg'] as const).map(size => (
            <Button key={size} variant={variant} size={size}>
              {variant} {size}
            </Button>
          ))}
          <Button variant={variant} loading>
            loading
          </Button>
          <Button variant={variant} disabled>
            disabled
          </Button>
        </Flex>
      ))}
      <Kbd>Ctrl K</Kbd> <Button onClick={() => say('3 names copied')}>Say something in passing</Button>
    </Part>
  )
}

function Outcomes() {
  const counts = SHOWN.map((kind, i) => ({ id: kind, n: 11 - i, ...bandFill(kind) }))
  return (
    <Part heading="Outcomes">
      <Grid templateColumns="1fr 1fr" gap="1">
        {SHOWN.map(kind => (
          <Flex key={kind} gap="2" align="center">
            <Diamond kind={kind} size={14} /> {outcomeWords(kind).counted}
          </Flex>
        ))}
      </Grid>
      <PanelPart heading="A bar of parts" aside="66 devices">
        <StackBar parts={counts} whole={66} words="all kinds" />
      </PanelPart>
      <PanelPart heading="A bar of nothing">
        <StackBar parts={[]} whole={0} words="nothing" />
      </PanelPart>
    </Part>
  )
}

interface Written {
  name: string
  rule: string
  minutes: string
}

function Fields() {
  return (
    <Part heading="Progress and choices">
      <Flex direction="column" gap="3">
        <Progress percent={0} label="not begun" />
        <Progress percent={42} label="under way" />
        <Progress percent={undefined} label="nobody knows how far" />
        <ChosenSegments />
      </Flex>
    </Part>
  )
}

function ChosenSegments() {
  const [value, setValue] = useState<'map' | 'table'>('map')
  const [on, setOn] = useState(true)
  return (
    <Flex gap="4" align="center">
      <Segments
        label="Shown as"
        value={value}
        choices={[
          { value: 'map', words: 'Map' },
          { value: 'table', words: 'Table' },
        ]}
        onChange={setValue}
      />
      <Tick label="Something that is so" on={on} onChange={setOn} />
    </Flex>
  )
}

function Pickers() {
  const [chosen, setChosen] = useState('nothing yet')
  return (
    <Part heading="Pickers">
      <Flex direction="column" gap="3">
        <TitlePicker label="A title" onChoose={setChosen} />
        <AudiencePicker label="Whom" follows="device" onChoose={one => setChosen(one.target)} />
        <Box color="ink2">{chosen}</Box>
      </Flex>
    </Part>
  )
}

const NEVER = { data: undefined, error: null, isError: false, isFetching: true, refetch: () => undefined }

function Waiting() {
  const old = { ...NEVER, data: 'What was loaded before.', isError: true, error: new Error('Rivo does not answer.') }
  return (
    <Part heading="What was asked for">
      <QueryState query={NEVER} failed="This cannot be shown">
        {() => null}
      </QueryState>
      <QueryState query={old} failed="This cannot be shown">
        {words => words}
      </QueryState>
      <QueryState
        query={{ ...NEVER, isFetching: false, isError: true, error: new Error('There is no such thing.') }}
        failed="This cannot be shown"
      >
        {() => null}
      </QueryState>
    </Part>
  )
}

function Ordered() {
  const [items, setItems] = useState(['Tidegate', 'Siltscope', 'Dosecalc'].map(name => ({ id: name, name })))
  const move = (from: number, to: number) => {
    const next = [...items]
    next.splice(to, 0, ...next.splice(from, 1))
    setItems(next)
  }
  return (
    <Part heading="In order">
      <Box as="ol" listStyleType="none">
        <SortableList items={items} onMove={move}>
          {(item, at, grip) => (
            <Flex gap="2" align="center" py="1">
              {grip} {at + 1}. {item.name}
            </Flex>
          )}
        </SortableList>
      </Box>
    </Part>
  )
}

interface Line {
  readonly id: string
  readonly n: number
}

const COLUMNS: readonly Column<Line>[] = [
  { id: 'name', head: 'name', width: '1fr', always: true, sortable: true, cell: line => line.id },
  { id: 'n', head: 'devices', width: '80px', right: true, sortable: true, cell: line => line.n },
]
const MANY = 100_000

function List() {
  const [order, setOrder] = useState<Order | undefined>(undefined)
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set())
  return (
    <Flex direction="column" h="300px">
      <DataTable
        label="Lines"
        name="gallery"
        columns={COLUMNS}
        total={MANY}
        count="100,000 lines"
        rowAt={i => ({ id: `Line ${order?.descending === true ? MANY - i : i + 1}`, n: i })}
        idOf={line => line.id}
        onLook={() => undefined}
        order={order}
        onOrder={column => setOrder(nextOrder(order, column))}
        onOpen={line => say(line.id)}
        chosen={{ ids: chosen, set: setChosen, acts: <Button size="xs">Do something</Button> }}
        empty={<Notice heading="No line">There is none.</Notice>}
      />
    </Flex>
  )
}

function Windows() {
  const [open, setOpen] = useState(false)
  const form = useForm<Written>({ defaultValues: { name: '', rule: 'arch eq "x64"', minutes: '5' } })
  return (
    <Part heading="Windows">
      <Button onClick={() => setOpen(true)}>Open a form…</Button>
      {open && (
        <FormWindow
          heading="A form"
          form={form}
          note="Nothing is kept."
          onSubmit={() => Promise.reject(new Error('The server refused it, and says why.'))}
          onClose={() => setOpen(false)}
        >
          <Flex direction="column" gap="2.5">
            <FormText<Written> name="name" label="Name" required rules={{ required: 'Give it a name.' }} />
            <FormRule<Written> name="rule" />
            <FormNumber<Written> name="minutes" label="Minutes" min={1} hint="From 1 on" />
          </Flex>
        </FormWindow>
      )}
    </Part>
  )
}
