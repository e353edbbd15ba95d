/** What is wrong or doubtful in a design: subject, plain sentence, figures and remedies, in one form for every stage. */
export * from './finding';
