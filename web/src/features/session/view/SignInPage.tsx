import { Box, Field, Flex, Input } from '@chakra-ui/react'
import { useForm } from 'react-hook-form'
import { Mark } from '../../../shared/ui/Mark'
import { sentence } from '../../../shared/api'
import { Button } from '../../../shared/ui/Button'
import { Panel } from '../../../shared/ui/Panel'
import { useSignIn } from '../api/session'

interface Fields {
  account: string
  password: string
}

/** The directory checks the name and the password. */
export function SignInPage() {
  const signIn = useSignIn()
  const { register, handleSubmit, formState } = useForm<Fields>({ defaultValues: { account: '', password: '' } })
  const { account, password } = formState.errors
  return (
    <Flex as="main" minH="100%" align="center" justify="center" p="6">
      <Panel w="340px" p="7">
        <form onSubmit={event => void handleSubmit(fields => signIn.mutate(fields))(event)} noValidate>
          <Mark />
          <Box as="h1" textStyle="heading" mt="4.5" mb="3.5">
            Sign in with your directory account
          </Box>
          <Field.Root required mb="3" invalid={account !== undefined}>
            <Field.Label fontWeight="600">Account name</Field.Label>
            <Input
              {...register('account', { required: 'Your account name in the directory.' })}
              autoComplete="username"
              autoFocus
              borderColor="line"
              h="9"
            />
            <Field.ErrorText color="trouble">{account?.message}</Field.ErrorText>
          </Field.Root>
          <Field.Root required mb="4" invalid={password !== undefined}>
            <Field.Label fontWeight="600">Password</Field.Label>
            <Input
              {...register('password', { required: 'Your password in the directory.' })}
              type="password"
              autoComplete="current-password"
              borderColor="line"
              h="9"
            />
            <Field.ErrorText color="trouble">{password?.message}</Field.ErrorText>
          </Field.Root>
          <Button type="submit" variant="honey" size="lg" w="100%" loading={signIn.isPending}>
            Sign in
          </Button>
          <Box role="alert" color="trouble" mt={signIn.isError ? '3' : '0'}>
            {signIn.isError && sentence(signIn.error)}
          </Box>
        </form>
      </Panel>
    </Flex>
  )
}
