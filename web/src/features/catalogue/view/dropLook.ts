/** The place where an installer is dropped. */
export const DROP_LOOK = {
  w: '100%',
  gap: '1',
  borderWidth: '1px',
  borderStyle: 'dashed',
  borderColor: 'line',
  borderRadius: 'lg',
  bg: 'transparent',
  py: '2.5',
  px: '3',
  textAlign: 'center',
  color: 'ink2',
  textStyle: 'compact',
} as const
