export type { TriedRule } from './api/rules'
export { useTriedRule } from './api/rules'
export { RuleEditor } from './view/RuleEditor'
