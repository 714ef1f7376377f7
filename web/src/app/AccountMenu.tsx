import { Box, Flex, Menu, Portal } from '@chakra-ui/react'
import { memo, useState } from 'react'
import { useNavigate } from 'react-router'
import { SessionsWindow, useSession, useSignOut } from '../features/session'
import type { ColourTheme } from './colourTheme'
import { keepTheme, keptTheme } from './colourTheme'
import { Initials } from './Initials'
import { Later } from '../shared/ui/Later'
import { useSteady } from '../shared/useSteady'

/** Behind the initials: the settings, the theme, the keys, the sessions, and the way out. */
export function AccountMenu({ onHelp }: { onHelp: () => void }) {
  const navigate = useNavigate()
  const go = useSteady((to: string) => void navigate(to))
  return <Items onHelp={onHelp} go={go} />
}

/** Apart, as the router has whoever navigates drawn anew at each step of looking, and menus are dear to draw. */
const Items = memo(function Items({ onHelp, go }: { onHelp: () => void; go: (to: string) => void }) {
  const session = useSession()
  const signOut = useSignOut()
  const [sessions, setSessions] = useState(false)
  const [theme, setTheme] = useState<ColourTheme>(keptTheme)
  const other: ColourTheme = theme === 'light' ? 'dark' : 'light'
  const change = () => {
    keepTheme(other)
    setTheme(other)
  }
  return (
    <>
      <Menu.Root positioning={{ placement: 'bottom-end' }}>
        <Menu.Trigger asChild>
          <Initials name={session.fullName} />
        </Menu.Trigger>
        <Portal>
          <Menu.Positioner>
            <Menu.Content bg="panel" borderWidth="1px" borderColor="line" boxShadow="md" minW="220px" p="1.5">
              <Box px="2.5" py="1.5">
                <Box fontWeight="700">{session.fullName}</Box>
                <Box color="ink3" textStyle="second">
                  {session.account}
                </Box>
              </Box>
              <Item value="mirrors" onSelect={() => go('/mirrors')}>
                Mirrors
              </Item>
              <Item value="windows" onSelect={() => go('/windows')}>
                Maintenance windows
              </Item>
              <Item value="roots" onSelect={() => go('/trusted-roots')}>
                Trusted roots
              </Item>
              <Item value="estate" onSelect={() => window.location.assign('/api/estate')}>
                Save the estate as a file
              </Item>
              <Item value="theme" onSelect={change}>
                {other === 'dark' ? 'Dark theme' : 'Light theme'}
              </Item>
              <Item value="keys" onSelect={onHelp}>
                Keys and words
              </Item>
              <Item value="sessions" onSelect={() => setSessions(true)}>
                Where you are signed in…
              </Item>
              <Item value="out" onSelect={() => signOut.mutate()}>
                Sign out
              </Item>
            </Menu.Content>
          </Menu.Positioner>
        </Portal>
      </Menu.Root>
      <Later open={sessions}>
        <SessionsWindow open={sessions} onClose={() => setSessions(false)} />
      </Later>
    </>
  )
})

function Item({ value, onSelect, children }: { value: string; onSelect: () => void; children: string }) {
  return (
    <Menu.Item value={value} onSelect={onSelect} _highlighted={{ bg: 'lagoonSoft' }} cursor="pointer" borderRadius="md">
      <Flex>{children}</Flex>
    </Menu.Item>
  )
}
