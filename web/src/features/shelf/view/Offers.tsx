import { Box, Flex, Grid } from '@chakra-ui/react'
import { useState } from 'react'
import { Button } from '../../../shared/ui/Button'
import { SearchField } from '../../../shared/ui/TextField'
import type { Offer } from '../api/shelf'
import { categoriesOf, offersWith } from '../model/offers'
import { useSpeaker } from '../state/useTexts'
import { Heading } from './Heading'
import { OfferCard } from './OfferCard'

interface Props {
  offers: readonly Offer[]
  device: string
  /** The title that an entry in the computer's menu stands for. */
  wanted: string | undefined
  /** Whether that is taken at once. */
  takes: boolean
  /** It has been found, and is not looked for again. */
  onFound: () => void
}

/** What one may take, and what one has taken of it. */
export function Offers({ offers, device, wanted, takes, onFound }: Props) {
  const { say } = useSpeaker()
  const [words, setWords] = useState('')
  const [category, setCategory] = useState<string | undefined>(undefined)
  const categories = categoriesOf(offers)
  const shown = offersWith(offers, words, categories.includes(category ?? '') ? category : undefined)
  return (
    <Box as="section" aria-label={say('offers')}>
      <Heading words={say('offers')} n={offers.length}>
        <Flex gap="1" wrap="wrap" align="center">
          {categories.length > 0 &&
            [undefined, ...categories].map(one => (
              <Button
                key={one ?? ''}
                size="sm"
                variant={one === category ? 'chosen' : 'text'}
                aria-pressed={one === category}
                onClick={() => setCategory(one)}
              >
                {one ?? say('everything')}
              </Button>
            ))}
        </Flex>
        {offers.length > 1 && (
          <SearchField
            label={say('search')}
            placeholder={say('search')}
            value={words}
            onChange={setWords}
            w={{ base: '100%', sm: '240px' }}
          />
        )}
      </Heading>
      {wanted !== undefined && offers.every(offer => offer.title !== wanted) && (
        <Box role="alert" color="trouble" mb="2">
          {say('wantedNone')}
        </Box>
      )}
      {shown.length === 0 && <Box color="ink2">{say(offers.length === 0 ? 'offersNone' : 'offersNotFound')}</Box>}
      <Grid
        as="ul"
        listStyleType="none"
        templateColumns="repeat(auto-fill, minmax(min(100%, 300px), 1fr))"
        autoFlow="dense"
        gap="3"
      >
        {shown.map(offer => (
          <OfferCard
            key={offer.title}
            offer={offer}
            device={device}
            isWanted={offer.title === wanted}
            takes={takes}
            onFound={onFound}
          />
        ))}
      </Grid>
    </Box>
  )
}
