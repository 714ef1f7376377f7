import { Box, Flex } from '@chakra-ui/react'
import { Check, X } from 'lucide-react'
import { name } from '../../../shared/address'
import { sentence } from '../../../shared/api'
import { useAddressState } from '../../../shared/useAddressState'
import type { AudienceData } from '../api/audiences'
import { useMembership } from '../api/audiences'
import { AudiencePicker } from './AudiencePicker'

const ADDRESS = { member: name }

/** "Is X in it, and how?" for any device or person; answered in a sentence, also when it is not. */
export function MembershipQuestion({ view }: { view: Pick<AudienceData, 'target' | 'name' | 'kind'> }) {
  const [{ member }, change] = useAddressState(ADDRESS)
  const answer = useMembership(view.target, member)
  return (
    <Box as="section" aria-label={`Is it in ${view.name}`} mt="3">
      <AudiencePicker
        label="Is this one in? Name of a device or person"
        follows="either"
        first="device"
        only={view.kind === 'collection' ? ['device'] : ['device', 'person']}
        single
        onChoose={found => change({ member: found.target })}
      />
      {answer.isError && (
        <Box color="trouble" mt="2">
          {sentence(answer.error)}
        </Box>
      )}
      {member !== undefined && answer.data !== undefined && (
        <Box mt="2" px="3" py="2" borderWidth="1px" borderColor="line" borderRadius="md" bg="paper" role="status">
          <Box>{answer.data.sentence}</Box>
          {answer.data.clauses.map((clause, i) => (
            <Flex
              key={`${i} ${clause.words}`}
              gap="2"
              color={clause.good ? 'ink2' : 'trouble'}
              textStyle="second"
              mt="1"
            >
              <Box pt="0.5">
                {clause.good ? (
                  <Check size={12} aria-label="speaks for it" />
                ) : (
                  <X size={12} aria-label="speaks against it" />
                )}
              </Box>
              <Box>
                <Box as="span" textStyle="code">
                  {clause.words}
                </Box>{' '}
                {clause.seen.length > 0 ? `saw ${clause.seen.join(', ')}` : 'nothing reported'}
              </Box>
            </Flex>
          ))}
        </Box>
      )}
    </Box>
  )
}
