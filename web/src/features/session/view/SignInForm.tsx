import { Box, Field, Flex, Input } from '@chakra-ui/react'
import { useForm } from 'react-hook-form'
import { sentence } from '../../../shared/api'
import { Button } from '../../../shared/ui/Button'
import { Mark } from '../../../shared/ui/Mark'
import { Panel } from '../../../shared/ui/Panel'
import type { useSignIn } from '../api/session'

interface Fields {
  account: string
  password: string
}

interface Props {
  signIn: ReturnType<typeof useSignIn>
  /** What it says, in the language of whoever signs in. */
  words: Readonly<Record<'heading' | 'account' | 'password' | 'enter' | 'needsAccount' | 'needsPassword', string>>
}

/** A name and a password, which the directory checks. */
export function SignInForm({ signIn, words }: Props) {
  const { register, handleSubmit, formState } = useForm<Fields>({ defaultValues: { account: '', password: '' } })
  const { account, password } = formState.errors
  return (
    <Flex as="main" minH="100%" align="center" justify="center" p={{ base: '3', sm: '6' }}>
      <Panel w="340px" maxW="100%" p={{ base: '5', sm: '7' }}>
        <form onSubmit={event => void handleSubmit(fields => signIn.mutate(fields))(event)} noValidate>
          <Mark />
          <Box as="h1" textStyle="heading" mt="4.5" mb="3.5">
            {words.heading}
          </Box>
          <Field.Root required mb="3" invalid={account !== undefined}>
            <Field.Label fontWeight="600">{words.account}</Field.Label>
            <Input
              {...register('account', { required: words.needsAccount })}
              autoComplete="username"
              autoFocus
              borderColor="line"
              h="9"
            />
            <Field.ErrorText color="trouble">{account?.message}</Field.ErrorText>
          </Field.Root>
          <Field.Root required mb="4" invalid={password !== undefined}>
            <Field.Label fontWeight="600">{words.password}</Field.Label>
            <Input
              {...register('password', { required: words.needsPassword })}
              type="password"
              autoComplete="current-password"
              borderColor="line"
              h="9"
            />
            <Field.ErrorText color="trouble">{password?.message}</Field.ErrorText>
          </Field.Root>
          <Button type="submit" variant="honey" size="lg" w="100%" loading={signIn.isPending}>
            {words.enter}
          </Button>
          <Box role="alert" color="trouble" mt={signIn.isError ? '3' : '0'}>
            {signIn.isError && sentence(signIn.error)}
          </Box>
        </form>
      </Panel>
    </Flex>
  )
}
