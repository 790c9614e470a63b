import type { Stretch } from '#core/folio';
import type { Kind } from '#contract/remarks';

/** A passage as it is drawn in the work. */
export interface DrawnStretch extends Stretch {
  kind: Kind;
}
