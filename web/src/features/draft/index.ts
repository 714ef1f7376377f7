export { useDraft, usePutEdit, useRemoveEdit } from './api/draft'
export { DraftBar } from './view/DraftBar'
