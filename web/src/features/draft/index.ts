export { useDraft, useDropEdit, usePutAssignment, usePutDocument, usePutEdit, useRetireDocument } from './api/draft'
export { CountedDevice } from './view/CountedDevice'
export { editAt } from './model/edits'
export { DraftBar } from './view/DraftBar'
