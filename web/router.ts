import { createRouter, createWebHistory, type RouteLocationNormalized } from 'vue-router';
import { useSession } from './session/session.ts';

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/sign-in', name: 'sign-in', component: () => import('./sign-in/SignInPage.vue') },
    {
      path: '/set-up/:code',
      name: 'set-up',
      component: () => import('./joining/SetUpPage.vue'),
      props: true,
      meta: { open: true },
    },
    {
      path: '/join/:code?',
      name: 'join',
      component: () => import('./joining/JoinPage.vue'),
      props: true,
      meta: { open: true },
    },
    { path: '/arrived', name: 'arrived', component: () => import('./platforms/ArrivedPage.vue'), meta: { open: true } },
    { path: '/', name: 'home', component: () => import('./assignments/HomePage.vue') },
    {
      path: '/hand-in/:assignment',
      name: 'hand-in',
      component: () => import('./hand-in/HandInPage.vue'),
      props: true,
    },
    {
      path: '/assignments/:assignment',
      name: 'assignment',
      component: () => import('./assignments/AssignmentPage.vue'),
      props: true,
      meta: { teaches: true },
    },
    {
      path: '/desk/:submission',
      name: 'desk',
      component: () => import('./desk/DeskPage.vue'),
      props: true,
      meta: { teaches: true },
    },
    {
      path: '/speech',
      name: 'speech',
      component: () => import('./speech/SpeechSettingsPage.vue'),
      meta: { teaches: true },
    },
    {
      path: '/courses/:course',
      name: 'course',
      component: () => import('./courses/CoursePage.vue'),
      props: true,
    },
    {
      path: '/courses/:course/people',
      name: 'members',
      component: () => import('./courses/MembersPage.vue'),
      props: true,
      meta: { teaches: true },
    },
    {
      path: '/courses/:course/gradebook',
      name: 'gradebook',
      component: () => import('./gradebook/GradebookPage.vue'),
      props: true,
      meta: { teaches: true },
    },
    {
      path: '/courses/:course/students/:student/report',
      name: 'report',
      component: () => import('./gradebook/ReportPage.vue'),
      props: true,
      meta: { teaches: true },
    },
    {
      path: '/courses/:course/reports',
      name: 'reports',
      component: () => import('./gradebook/ReportPage.vue'),
      props: true,
      meta: { teaches: true },
    },
    {
      path: '/courses/:course/charts',
      name: 'charts',
      component: () => import('./charts/ChartsPage.vue'),
      props: true,
      meta: { teaches: true },
    },
    {
      path: '/assignments/:assignment/second-marking',
      name: 'moderations',
      component: () => import('./moderation/ModerationsPage.vue'),
      props: true,
      meta: { teaches: true },
    },
    {
      path: '/moderations/:moderation',
      name: 'moderation',
      component: () => import('./moderation/ModerationPage.vue'),
      props: true,
      meta: { teaches: true },
    },
    { path: '/bank', name: 'bank', component: () => import('./bank/BankPage.vue'), meta: { teaches: true } },
    {
      path: '/courses/:course/greetings',
      name: 'greetings',
      component: () => import('./bank/GreetingsPage.vue'),
      props: true,
      meta: { teaches: true },
    },
    { path: '/people', name: 'people', component: () => import('./joining/StewardPage.vue'), meta: { teaches: true } },
    {
      path: '/platforms',
      name: 'platforms',
      component: () => import('./platforms/PlatformsPage.vue'),
      meta: { teaches: true },
    },
    {
      path: '/launched/:context',
      name: 'launched',
      component: () => import('./platforms/LaunchedPage.vue'),
      props: true,
    },
    {
      path: '/courses/:course/platform',
      name: 'platform',
      component: () => import('./platforms/CoursePlatformPage.vue'),
      props: true,
      meta: { teaches: true },
    },
    { path: '/mail', name: 'mail', component: () => import('./joining/MailPage.vue'), meta: { teaches: true } },
    { path: '/grades', name: 'grades', component: () => import('./gradebook/OwnGradesPage.vue') },
    { path: '/notices', name: 'notices', component: () => import('./joining/NoticesPage.vue') },
    { path: '/password', name: 'password', component: () => import('./sign-in/PasswordPage.vue') },
    { path: '/search', name: 'search', component: () => import('./search/SearchPage.vue') },
    {
      path: '/returned/:submission',
      name: 'returned',
      component: () => import('./returned/ReturnedPage.vue'),
      props: true,
    },
    {
      path: '/desk/:submission/as-student',
      name: 'as-student',
      component: () => import('./returned/ReturnedPage.vue'),
      props: ({ params }) => ({ ...params, preview: true }),
      meta: { teaches: true },
    },
    {
      path: '/assignments/:assignment/return',
      name: 'return',
      component: () => import('./assignments/ReturnPage.vue'),
      props: true,
      meta: { teaches: true },
    },
    { path: '/:any(.*)*', name: 'nowhere', component: () => import('./shell/NowherePage.vue') },
  ],
});

router.beforeEach(async (to: RouteLocationNormalized) => {
  const session = useSession();
  // An unreachable server is told by the page that needs it.
  if (!session.known) await session.load().catch(() => undefined);
  if (to.meta.open) return true;
  if (!session.person && to.name !== 'sign-in') return { name: 'sign-in', query: { to: to.fullPath } };
  if (session.person && to.name === 'sign-in') return { name: 'home' };
  // For comfort only: what may be seen is decided on the server.
  if (to.meta.teaches && !session.person?.teaches) return { name: 'home' };
  return true;
});
