/** What bounds what: sections (one detector each) and blocks (one train each), and what a detector sees of a train. */
export * from './consist';
export * from './detection-findings';
export * from './partition';
export * from './resistor-axles';
