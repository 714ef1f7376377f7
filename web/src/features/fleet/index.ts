export { DevicePage } from './view/DevicePage'
export { FleetPage } from './view/FleetPage'
