import { Box } from '@chakra-ui/react'
import { useEffect, useRef, useState } from 'react'
import { useLocation, useNavigation } from 'react-router'
import { announce } from '../shared/ui/Announcer'

/** A page is looked at again and again until its heading is there. */
const LOOK_MS = 60
const MOST_LOOKS = 50
const LATE_MS = 300

/**
 * Takes the keyboard along when one goes to another page: the focus goes to its heading, unless the page has put it elsewhere, and those who
 * do not see hear where they are. Shows that a page is on its way when it takes long.
 */
export function Arrival() {
  const { pathname } = useLocation()
  const before = useRef(pathname)
  useEffect(() => {
    if (before.current === pathname) {
      return undefined
    }
    before.current = pathname
    let looks = 0
    const timer = window.setInterval(() => {
      const main = document.getElementById('main')
      const heading = main?.querySelector<HTMLElement>('h1[tabindex="-1"]')
      const active = document.activeElement
      const elsewhere = active !== null && active !== document.body && active !== main && active.closest('nav') === null
      looks += 1
      if (heading === null || heading === undefined) {
        if (!elsewhere && looks === 1) {
          main?.focus({ preventScroll: true })
        }
        if (looks < MOST_LOOKS) {
          return
        }
      } else if (!elsewhere) {
        heading.focus({ preventScroll: true })
      }
      announce(document.title)
      window.clearInterval(timer)
    }, LOOK_MS)
    return () => window.clearInterval(timer)
  }, [pathname])
  return <OnItsWay />
}

function OnItsWay() {
  const navigation = useNavigation()
  return navigation.state === 'idle' ? null : <Late />
}

function Late() {
  const [late, setLate] = useState(false)
  useEffect(() => {
    const timer = window.setTimeout(() => setLate(true), LATE_MS)
    return () => window.clearTimeout(timer)
  }, [])
  return late ? <Box position="fixed" top="0" left="0" right="0" h="0.5" bg="lagoon" zIndex="banner" /> : null
}
