import { Box, Flex } from '@chakra-ui/react'
import { useState } from 'react'
import { withQuery } from '../../../shared/api'
import { TextField } from '../../../shared/ui/TextField'
import { Window } from '../../../shared/ui/Window'
import type { Mirror } from '../api/mirrors'
import { mirrorAddress } from '../api/mirrors'

/** How an nginx becomes this mirror. */
export function NginxWindow({ mirror, onClose }: { mirror: Mirror; onClose: () => void }) {
  const [server, setServer] = useState(window.location.origin)
  return (
    <Window
      open
      onClose={onClose}
      heading={`Make an nginx the mirror ${mirror.name}`}
      width="600px"
      foot={
        <Flex
          w="100%"
          justify="flex-end"
          css={{ '& a': { textDecoration: 'underline', color: 'lagoon', fontWeight: 600 } }}
        >
          <a href={withQuery(`${mirrorAddress(mirror.id)}/nginx`, { server })} download="rivo-mirror.conf">
            Download rivo-mirror.conf
          </a>
        </Flex>
      }
    >
      <TextField
        label="Where the mirror reaches Rivo"
        mono
        value={server}
        required
        hint="As seen from the mirror, not from your computer"
        onChange={setServer}
      />
      <Box as="ol" pl="5" mt="3" textStyle="compact" css={{ '& li': { marginBottom: '5px' } }}>
        <li>Install nginx on a computer at the site: any of Debian’s nginx packages does.</li>
        <li>
          Put the file into <code>/etc/nginx/conf.d/</code>, readable by root alone: it holds the key of this mirror.
        </li>
        <li>
          Say <code>nginx -t</code>, then <code>systemctl reload nginx</code>, and look again here.
        </li>
      </Box>
      <Box color="ink2" textStyle="second" mt="2">
        It keeps up to 200 GiB in /var/cache/nginx/rivo; change max_size to what the disk has. Devices check the SHA-256
        of everything, so a mirror that is tampered with can spoil nothing.
      </Box>
    </Window>
  )
}
