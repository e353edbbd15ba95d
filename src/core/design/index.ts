/** One document through every stage: the scheme, its rule program, and all findings. */
export * from './block-reason';
export * from './check-design';
export * from './design-view';
export * from './start-place';
