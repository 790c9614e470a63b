import { describe, expect, it } from 'vitest';
import { invitation } from './index.ts';

const to = {
  ...{ name: 'Zofia Krol', school: 'Fennick Tidal College', course: 'Reading the Shore', login: 'zofia-krol' },
  ...{ address: 'https://fennick.example/join/k3x9-0f7m-q2wd', until: '2027-01-26T09:00:00Z' },
};

describe('an invitation', () => {
  it('says where to, by when, and what one is called', () => {
    const { subject, body } = invitation(to);
    expect(subject).toBe('Your way into Reading the Shore');
    expect(body).toContain('Hello Zofia Krol,');
    expect(body).toContain('“Reading the Shore” at Fennick Tidal College');
    expect(body.split('\n')).toContain(to.address);
    expect(body).toContain('until 26 January 2027. Later you sign in as zofia-krol.');
  });

  it('is to the school where there is no course', () => {
    expect(invitation({ ...to, course: null }).subject).toBe('Your way into Fennick Tidal College');
    expect(invitation({ ...to, course: null }).body).toContain('invited to Fennick Tidal College.');
  });
});
