export { default } from './[id]/index'
