export { dayEdges } from './dayEdges';
