/**
 * The files of OneRoster 1.2 that are read and written here, with the columns that their binding requires in this order: 1EdTech,
 * "OneRoster CSV Tables 1.2", sections 4 and 5; the names of columns from memory.
 */
const BASE = ['sourcedId', 'status', 'dateLastModified'] as const;

export const COLUMNS = {
  academicSessions: [...BASE, 'title', 'type', 'startDate', 'endDate', 'parentSourcedId', 'schoolYear'],
  categories: [...BASE, 'title', 'weight'],
  classes: [
    ...[...BASE, 'title', 'grades', 'courseSourcedId', 'classCode', 'classType', 'location', 'schoolSourcedId'],
    ...['termSourcedIds', 'subjects', 'subjectCodes', 'periods'],
  ],
  courses: [
    ...[...BASE, 'schoolYearSourcedId', 'title', 'courseCode', 'grades', 'orgSourcedId', 'subjects', 'subjectCodes'],
  ],
  enrollments: [
    ...[...BASE, 'classSourcedId', 'schoolSourcedId', 'userSourcedId', 'role', 'primary', 'beginDate', 'endDate'],
  ],
  lineItems: [
    ...[...BASE, 'title', 'description', 'assignDate', 'dueDate', 'classSourcedId', 'categorySourcedId'],
    ...['gradingPeriodSourcedId', 'resultValueMin', 'resultValueMax', 'schoolSourcedId'],
  ],
  orgs: [...BASE, 'name', 'type', 'identifier', 'parentSourcedId'],
  results: [
    ...[...BASE, 'lineItemSourcedId', 'studentSourcedId', 'scoreStatus', 'score', 'scoreDate', 'comment', 'textScore'],
    ...['classSourcedId', 'inProgress', 'incomplete', 'late', 'missing'],
  ],
  roles: [
    ...[...BASE, 'userSourcedId', 'roleType', 'role', 'beginDate', 'endDate', 'orgSourcedId', 'userProfileSourcedId'],
  ],
  users: [
    ...[...BASE, 'enabledUser', 'username', 'userIds', 'givenName', 'familyName', 'middleName', 'identifier', 'email'],
    ...['sms', 'phone', 'agentSourcedIds', 'grades', 'password', 'userMasterIdentifier', 'resourceSourcedIds'],
    ...['preferredGivenName', 'preferredMiddleName', 'preferredFamilyName', 'primaryOrgSourcedId', 'pronouns'],
  ],
} as const satisfies Record<string, readonly string[]>;
export type FileName = keyof typeof COLUMNS;

/** Files of the standard that never come from here. */
export const ABSENT = [
  ...['classResources', 'courseResources', 'demographics', 'lineItemLearningObjectiveIds', 'lineItemScoreScales'],
  ...['resources', 'resultLearningObjectiveIds', 'resultScoreScales', 'scoreScales', 'userProfiles', 'userResources'],
] as const;

export const VERSIONS = ['1.1', '1.2'];
