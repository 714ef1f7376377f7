export { ChooseWindow } from './view/later'
export { fixedWords } from './model/choices'
export { TitlePicker } from './view/TitlePicker'
export { useChoosable } from './api/catalogue'
