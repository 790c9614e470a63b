export * from './identity.ts';
export * from './invitation.ts';
export * from './login.ts';
export * from './match-files.ts';
export * from './plan.ts';
export * from './read-roster.ts';
