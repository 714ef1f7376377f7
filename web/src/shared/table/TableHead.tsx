import { Box, chakra, Flex, Menu, Portal } from '@chakra-ui/react'
import { ArrowDown, ArrowUp, Columns3 } from 'lucide-react'
import { count } from '../format'
import { Button } from '../ui/Button'
import type { Column, Order } from './columns'
import type { DataTableProps, ShownColumns } from './DataTable'

interface Props<Row> {
  props: DataTableProps<Row>
  shown: ShownColumns<Row>
  tracks: string
}

/** Above a list: how many there are, what can be done with them, and the names of the columns. */
export function TableHead<Row>({ props, shown, tracks }: Props<Row>) {
  const { chosen, csv, columns, order, onOrder } = props
  return (
    <>
      <Flex align="center" gap="2.5" px="3.5" py="1.5" minH="10" color="ink2" textStyle="compact">
        {chosen !== undefined && chosen.ids.size > 0 ? (
          <>
            <b>{count(chosen.ids.size)} chosen</b>
            {chosen.acts}
            <Button variant="text" size="xs" onClick={() => chosen.set(new Set())}>
              Choose none
            </Button>
          </>
        ) : (
          <Box>{props.count}</Box>
        )}
        <Box flex="1" />
        {csv !== undefined && (
          <Box css={{ '& a': { textDecoration: 'underline', color: 'lagoon' } }}>
            <a href={csv} download>
              CSV
            </a>
          </Box>
        )}
        <ColumnsMenu columns={columns} shown={shown} />
      </Flex>
      <Box
        display="grid"
        gap="3.5"
        px="3.5"
        py="1"
        color="ink3"
        textStyle="second"
        borderTopWidth="1px"
        borderBottomWidth="1px"
        borderColor="line"
        style={{ gridTemplateColumns: tracks }}
      >
        {chosen !== undefined && <span />}
        {shown.columns.map(column => (
          <Head key={column.id} column={column} order={order} onOrder={onOrder} />
        ))}
      </Box>
    </>
  )
}

interface HeadProps<Row> {
  column: Column<Row>
  order: Order | undefined
  onOrder: (column: string) => void
}

function Head<Row>({ column, order, onOrder }: HeadProps<Row>) {
  const ordered = order?.column === column.id ? order : undefined
  if (column.sortable !== true) {
    return <Box textAlign={column.right === true ? 'right' : undefined}>{column.head}</Box>
  }
  const now = ordered === undefined ? '' : ordered.descending ? ', in descending order' : ', in ascending order'
  return (
    <chakra.button
      type="button"
      display="flex"
      alignItems="center"
      justifyContent={column.right === true ? 'flex-end' : 'flex-start'}
      gap="1"
      cursor="pointer"
      fontWeight={ordered === undefined ? '400' : '700'}
      aria-label={`Sort by ${column.head}${now}`}
      onClick={() => onOrder(column.id)}
      _hover={{ color: 'ink' }}
    >
      {column.head}
      {ordered !== undefined &&
        (ordered.descending ? <ArrowDown size={12} aria-hidden="true" /> : <ArrowUp size={12} aria-hidden="true" />)}
    </chakra.button>
  )
}

function ColumnsMenu<Row>({ columns, shown }: { columns: readonly Column<Row>[]; shown: ShownColumns<Row> }) {
  return (
    <Menu.Root closeOnSelect={false} positioning={{ placement: 'bottom-end' }}>
      <Menu.Trigger asChild>
        <Button size="xs" aria-label="Columns">
          <Columns3 size={13} aria-hidden="true" />
        </Button>
      </Menu.Trigger>
      <Portal>
        <Menu.Positioner>
          <Menu.Content bg="panel" borderWidth="1px" borderColor="line" boxShadow="md" p="1.5">
            {columns
              .filter(column => column.always !== true)
              .map(column => (
                <Menu.CheckboxItem
                  key={column.id}
                  value={column.id}
                  checked={shown.columns.includes(column)}
                  onCheckedChange={() => shown.toggle(column.id)}
                  _highlighted={{ bg: 'lagoonSoft' }}
                  cursor="pointer"
                  borderRadius="md"
                >
                  <Menu.ItemIndicator />
                  {column.head}
                </Menu.CheckboxItem>
              ))}
          </Menu.Content>
        </Menu.Positioner>
      </Portal>
    </Menu.Root>
  )
}
