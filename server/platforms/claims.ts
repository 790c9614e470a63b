import { wellFormed } from '#core/text';
import { z } from 'zod';

/*
 * Names as the standards have them: IMS Global (1EdTech), "Learning Tools Interoperability Core Specification 1.3", "Names and
 * Role Provisioning Services 2.0", "Assignment and Grade Services 2.0"; from memory.
 */
const LTI = 'https://purl.imsglobal.org/spec/lti/claim/';
export const CLAIM = {
  message: `${LTI}message_type`,
  version: `${LTI}version`,
  deployment: `${LTI}deployment_id`,
  target: `${LTI}target_link_uri`,
  link: `${LTI}resource_link`,
  roles: `${LTI}roles`,
  context: `${LTI}context`,
  grades: 'https://purl.imsglobal.org/spec/lti-ags/claim/endpoint',
  members: 'https://purl.imsglobal.org/spec/lti-nrps/claim/namesroleservice',
} as const;

export const SCOPE = {
  items: 'https://purl.imsglobal.org/spec/lti-ags/scope/lineitem',
  scores: 'https://purl.imsglobal.org/spec/lti-ags/scope/score',
  members: 'https://purl.imsglobal.org/spec/lti-nrps/scope/contextmembership.readonly',
} as const;

export const MEDIA_TYPE = {
  items: 'application/vnd.ims.lis.v2.lineitemcontainer+json',
  item: 'application/vnd.ims.lis.v2.lineitem+json',
  score: 'application/vnd.ims.lis.v1.score+json',
  members: 'application/vnd.ims.lti-nrps.v2.membershipcontainer+json',
} as const;

const MEMBERSHIP = 'http://purl.imsglobal.org/vocab/lis/v2/membership#';
export const ROLE = { teacher: `${MEMBERSHIP}Instructor`, student: `${MEMBERSHIP}Learner` } as const;
/** In a class list the short names are allowed, too. */
export const hasRole = (roles: readonly string[], role: keyof typeof ROLE): boolean =>
  roles.includes(ROLE[role]) || roles.includes(ROLE[role].slice(MEMBERSHIP.length));

// What the database cannot keep is no part of a name.
const Text = z
  .string()
  .max(1000)
  .transform((text) => wellFormed(text));

/** What is told of somebody who comes; everything else is passed over. */
export const Launch = z
  .object({
    sub: z.string().min(1).max(255).transform(wellFormed),
    nonce: Text,
    name: Text.optional(),
    given_name: Text.optional(),
    family_name: Text.optional(),
    email: Text.optional(),
    [CLAIM.message]: z.literal('LtiResourceLinkRequest'),
    [CLAIM.version]: z.literal('1.3.0'),
    [CLAIM.deployment]: z.string().min(1).max(255),
    [CLAIM.link]: z.object({ id: z.string().min(1).max(255) }),
    [CLAIM.roles]: z.array(Text).max(100),
    [CLAIM.context]: z.object({ id: Text, title: Text.optional(), label: Text.optional() }),
    [CLAIM.grades]: z.object({ lineitems: z.url().optional(), scope: z.array(Text).default([]) }).optional(),
    [CLAIM.members]: z.object({ context_memberships_url: z.url() }).optional(),
  })
  .transform((claims) => ({
    subject: claims.sub,
    nonce: claims.nonce,
    deployment: claims[CLAIM.deployment],
    name: nameOf(claims),
    mail: claims.email ?? '',
    teaches: hasRole(claims[CLAIM.roles], 'teacher'),
    learns: hasRole(claims[CLAIM.roles], 'student'),
    context: {
      id: claims[CLAIM.context].id,
      title: claims[CLAIM.context].title ?? claims[CLAIM.context].label ?? claims[CLAIM.context].id,
    },
    /** What the tool may ask of its services. */
    scopes: [
      ...(claims[CLAIM.grades]?.scope ?? []).filter((scope) => scope === SCOPE.items || scope === SCOPE.scores),
      ...(claims[CLAIM.members] ? [SCOPE.members] : []),
    ],
    itemsAddress: claims[CLAIM.grades]?.lineitems ?? null,
    membersAddress: claims[CLAIM.members]?.context_memberships_url ?? null,
  }));
export type Launch = z.infer<typeof Launch>;

interface Named {
  name?: string | undefined;
  given_name?: string | undefined;
  family_name?: string | undefined;
}
export const nameOf = ({ name, given_name: given, family_name: family }: Named): string =>
  name?.trim() || [given, family].filter(Boolean).join(' ').trim();

export const Members = z.object({
  members: z.array(
    z.object({
      user_id: z.string().min(1).max(255),
      name: Text.optional(),
      given_name: Text.optional(),
      family_name: Text.optional(),
      email: Text.optional(),
      lis_person_sourcedid: Text.optional(),
      status: Text.optional(),
      roles: z.array(Text).max(100),
    }),
  ),
});
export type ListedMember = z.infer<typeof Members>['members'][number];

export const Items = z.array(z.object({ id: z.url(), resourceId: Text.optional() }));
export const Item = Items.element;
