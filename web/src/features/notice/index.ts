export { useNotices } from './api/notices'
export { NoticeList } from './view/NoticeList'
export { NoticesPart } from './view/NoticesPart'
