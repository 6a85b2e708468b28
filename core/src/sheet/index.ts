export * from './contact-sheet.ts';
