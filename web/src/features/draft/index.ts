export { useDraft, useDropEdit, usePutEdit } from './api/draft'
export { editAt } from './model/edits'
export { DraftBar } from './view/DraftBar'
