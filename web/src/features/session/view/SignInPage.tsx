import { useSignIn } from '../api/session'
import { SignInForm } from './SignInForm'

const WORDS = {
  heading: 'Sign in with your directory account',
  account: 'Account name',
  password: 'Password',
  enter: 'Sign in',
  needsAccount: 'Your account name in the directory.',
  needsPassword: 'Your password in the directory.',
}

/** The sign-in of administrators. */
export function SignInPage() {
  return <SignInForm signIn={useSignIn('/api/session')} words={WORDS} />
}
