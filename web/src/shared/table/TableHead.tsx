import { Box, chakra, Flex, Menu, Portal } from '@chakra-ui/react'
import { ArrowDown, ArrowUp, Columns3 } from 'lucide-react'
import { memo } from 'react'
import { count } from '../format'
import { Button } from '../ui/Button'
import { useSteady } from '../useSteady'
import type { Column } from './columns'
import type { DataTableProps, ShownColumns } from './DataTable'

interface Props<Row> {
  props: DataTableProps<Row>
  shown: ShownColumns<Row>
  tracks: string
}

/** Above a list: how many there are, what can be done with them, and the names of the columns. */
export function TableHead<Row>({ props, shown, tracks }: Props<Row>) {
  const { chosen, csv, columns, order } = props
  const onOrder = useSteady(props.onOrder)
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
        <ColumnsMenu columns={columns} shown={shown.columns} toggle={shown.toggle} />
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
          <Head
            key={column.id}
            column={column}
            descending={order?.column === column.id ? order.descending : undefined}
            onOrder={onOrder}
          />
        ))}
      </Box>
    </>
  )
}

interface HeadProps<Row> {
  column: Column<Row>
  /** How the list is in the order of this column; nothing where it is not. */
  descending: boolean | undefined
  onOrder: (column: string) => void
}

// Not drawn anew with each letter by which a list is narrowed.
const Head = memo(HeadPart) as typeof HeadPart
const ColumnsMenu = memo(ColumnsMenuPart) as typeof ColumnsMenuPart

function HeadPart<Row>({ column, descending, onOrder }: HeadProps<Row>) {
  if (column.sortable !== true) {
    return <Box textAlign={column.right === true ? 'right' : undefined}>{column.head}</Box>
  }
  const now = descending === undefined ? '' : descending ? ', in descending order' : ', in ascending order'
  return (
    <chakra.button
      type="button"
      display="flex"
      alignItems="center"
      justifyContent={column.right === true ? 'flex-end' : 'flex-start'}
      gap="1"
      cursor="pointer"
      fontWeight={descending === undefined ? '400' : '700'}
      aria-label={`Sort by ${column.head}${now}`}
      onClick={() => onOrder(column.id)}
      _hover={{ color: 'ink' }}
    >
      {column.head}
      {descending !== undefined &&
        (descending ? <ArrowDown size={12} aria-hidden="true" /> : <ArrowUp size={12} aria-hidden="true" />)}
    </chakra.button>
  )
}

interface MenuProps<Row> {
  columns: readonly Column<Row>[]
  shown: readonly Column<Row>[]
  toggle: (column: string) => void
}

function ColumnsMenuPart<Row>({ columns, shown, toggle }: MenuProps<Row>) {
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
                  checked={shown.includes(column)}
                  onCheckedChange={() => toggle(column.id)}
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
