/** What stands at the far right of the desk. */
export type DrawerName =
  'scores' | 'keys' | 'microphone' | 'emoji' | 'stamp' | 'kinds' | 'search' | 'bank' | 'keep' | 'parts';
