import { vi } from 'vitest';

// Test files share one world: none finds what the one before put in the place of a global.
vi.unstubAllGlobals();
