import { createToaster, Toast, Toaster } from '@chakra-ui/react'

const toaster = createToaster({ placement: 'bottom-end', pauseOnPageIdle: true, max: 3, offsets: '72px' })

export function show(words: string): void {
  toaster.create({ description: words, type: 'info', duration: 5000 })
}

export function ToastList() {
  return (
    <Toaster toaster={toaster}>
      {toast => (
        <Toast.Root bg="bar" color="onBar" borderRadius="md" w="auto" maxW="400px" textStyle="body">
          <Toast.Description>{toast.description}</Toast.Description>
          <Toast.CloseTrigger aria-label="Close" color="onBar" />
        </Toast.Root>
      )}
    </Toaster>
  )
}
