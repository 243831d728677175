export * from './access';
export * from './arrival';
