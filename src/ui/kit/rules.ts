import 'reflect-metadata';

/** Loaded with the rules of a form, when it is first sent. */
export { classValidatorResolver } from '@hookform/resolvers/class-validator';
