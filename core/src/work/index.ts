export { Budget } from './budget';
