import { Box, Field, Flex, Input } from '@chakra-ui/react'
import type { FormEvent } from 'react'
import { useState } from 'react'
import { Mark } from '../../../app/Mark'
import { Button } from '../../../shared/Button'
import { sentence } from '../../../shared/api'
import { useSignIn } from '../api/session'

/** The directory checks the name and the password. */
export function SignInPage() {
  const [account, setAccount] = useState('')
  const [password, setPassword] = useState('')
  const signIn = useSignIn()
  const submit = (event: FormEvent) => {
    event.preventDefault()
    signIn.mutate({ account, password })
  }
  return (
    <Flex as="main" minH="100%" align="center" justify="center" p="24px">
      <Box
        as="form"
        onSubmit={submit}
        w="340px"
        bg="panel"
        borderWidth="1px"
        borderColor="line"
        borderRadius="9px"
        p="28px"
      >
        <Mark />
        <Box as="h1" fontSize="17px" fontWeight="700" mt="18px" mb="14px">
          Sign in with your directory account
        </Box>
        <Field.Root required mb="12px">
          <Field.Label fontWeight="600">Account name</Field.Label>
          <Input
            value={account}
            onChange={event => setAccount(event.target.value)}
            autoComplete="username"
            autoFocus
            borderColor="line"
            h="36px"
          />
        </Field.Root>
        <Field.Root required mb="16px">
          <Field.Label fontWeight="600">Password</Field.Label>
          <Input
            type="password"
            value={password}
            onChange={event => setPassword(event.target.value)}
            autoComplete="current-password"
            borderColor="line"
            h="36px"
          />
        </Field.Root>
        <Button type="submit" variant="honey" size="lg" w="100%" loading={signIn.isPending}>
          Sign in
        </Button>
        <Box role="alert" color="trouble" mt={signIn.isError ? '12px' : '0'}>
          {signIn.isError && sentence(signIn.error)}
        </Box>
      </Box>
    </Flex>
  )
}
