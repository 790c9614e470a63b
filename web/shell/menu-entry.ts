import type { RouteLocationRaw } from 'vue-router';

/** One line of a menu: it leads somewhere, or does something; or it is the heading of those that follow. */
export interface MenuEntry {
  title: string;
  subtitle?: string;
  icon?: string;
  to?: RouteLocationRaw;
  run?: () => void;
  /** It is the one that is chosen now. */
  active?: boolean;
  heading?: true;
}
