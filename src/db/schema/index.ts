/** The tables, by area. */

export * from './access';
export * from './jobs';
export * from './maps';
export * from './recipes';
export * from './requests';
export * from './rows';
export * from './shops';
export * from './stock';
export * from './users';
