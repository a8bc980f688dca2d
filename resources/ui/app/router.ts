import { createRouter, createWebHistory } from 'vue-router'
import { Problem } from '@/api/client'
import { whoIsHere } from '@/shared/session'

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    {
      path: '/sign-in',
      name: 'sign-in',
      component: () => import('@/views/builds/SignIn.vue'),
      meta: { open: true, title: 'Sign in' },
    },
    {
      path: '/invited/:token',
      name: 'invited',
      component: () => import('@/views/people/InvitedView.vue'),
      meta: { open: true, title: 'You are invited' },
    },
    {
      path: '/shared/:token',
      name: 'shared',
      component: () => import('@/views/people/SharedView.vue'),
      meta: { open: true, title: 'A build' },
    },
    {
      path: '/reset',
      name: 'reset',
      component: () => import('@/views/people/ResetView.vue'),
      meta: { open: true, title: 'A new password' },
    },
    {
      path: '/account',
      name: 'account',
      component: () => import('@/views/people/AccountView.vue'),
      meta: { title: 'Account' },
    },
    {
      path: '/workshops/:workshop(\\d+)/people',
      name: 'people',
      component: () => import('@/views/people/PeopleView.vue'),
      meta: { title: 'People' },
    },
    { path: '/', name: 'builds', component: () => import('@/views/builds/BuildsView.vue'), meta: { title: 'Builds' } },
    {
      path: '/builds/:build(\\d+)',
      component: () => import('@/app/BuildFrame.vue'),
      children: [
        { path: '', redirect: (to) => `${to.path}/prove/fit` },
        {
          path: 'scope/brief',
          name: 'brief',
          component: () => import('@/views/scope/BriefView.vue'),
          meta: { stage: 'scope', title: 'Brief' },
        },
        {
          path: 'scope/routes',
          name: 'routes',
          component: () => import('@/views/scope/RoutesView.vue'),
          meta: { stage: 'scope', title: 'Routes' },
        },
        {
          path: 'scope/variants',
          name: 'variants',
          component: () => import('@/views/scope/VariantsView.vue'),
          meta: { stage: 'scope', title: 'Variants' },
        },
        {
          path: 'choose/compare/:need?',
          name: 'compare',
          component: () => import('@/views/choose/CompareView.vue'),
          meta: { stage: 'choose', title: 'Compare' },
        },
        {
          path: 'choose/decisions',
          name: 'decisions',
          component: () => import('@/views/choose/DecisionsView.vue'),
          meta: { stage: 'choose', title: 'Decisions' },
        },
        {
          path: 'choose/measure',
          name: 'measure',
          component: () => import('@/views/choose/MeasureView.vue'),
          meta: { stage: 'choose', title: 'Measure first' },
        },
        {
          path: 'choose/library',
          name: 'library',
          component: () => import('@/views/choose/LibraryView.vue'),
          meta: { stage: 'choose', title: 'Library' },
        },
        {
          path: 'choose/parts',
          name: 'parts',
          component: () => import('@/views/choose/PartsView.vue'),
          meta: { stage: 'choose', title: 'Parts' },
        },
        {
          path: 'choose/import',
          name: 'import',
          component: () => import('@/views/choose/ImportView.vue'),
          meta: { stage: 'choose', title: 'Bring a parts list' },
        },
        {
          path: 'prove/fit',
          name: 'fit',
          component: () => import('@/views/prove/FitView.vue'),
          meta: { stage: 'prove', title: 'Fit' },
        },
        {
          path: 'prove/wiring',
          name: 'wiring',
          component: () => import('@/views/prove/WiringView.vue'),
          meta: { stage: 'prove', title: 'Wiring' },
        },
        {
          path: 'prove/harness',
          name: 'harness',
          component: () => import('@/views/prove/HarnessView.vue'),
          meta: { stage: 'prove', title: 'Harness' },
        },
        {
          path: 'prove/leads',
          name: 'leads',
          component: () => import('@/views/prove/LeadsView.vue'),
          meta: { stage: 'prove', title: 'Leads' },
        },
        {
          path: 'prove/power',
          name: 'power',
          component: () => import('@/views/prove/PowerView.vue'),
          meta: { stage: 'prove', title: 'Power' },
        },
        {
          path: 'prove/motion',
          name: 'motion',
          component: () => import('@/views/prove/MotionView.vue'),
          meta: { stage: 'prove', title: 'Motion' },
        },
        {
          path: 'prove/stack-up',
          name: 'stack-up',
          component: () => import('@/views/prove/StackView.vue'),
          meta: { stage: 'prove', title: 'Stack-up' },
        },
        {
          path: 'prove/joints',
          name: 'joints',
          component: () => import('@/views/prove/JointsView.vue'),
          meta: { stage: 'prove', title: 'Joints' },
        },
        {
          path: 'prove/heat',
          name: 'heat',
          component: () => import('@/views/prove/HeatView.vue'),
          meta: { stage: 'prove', title: 'Heat' },
        },
        {
          path: 'prove/picture',
          name: 'picture',
          component: () => import('@/views/picture/PictureView.vue'),
          meta: { stage: 'prove', title: 'Picture' },
        },
        {
          path: 'prove/place',
          name: 'place',
          component: () => import('@/views/prove/PlaceView.vue'),
          meta: { stage: 'prove', title: 'Place' },
        },
        {
          path: 'prove/ports',
          name: 'ports',
          component: () => import('@/views/prove/PortsView.vue'),
          meta: { stage: 'prove', title: 'Ports' },
        },
        {
          path: 'prove/stops',
          name: 'stops',
          component: () => import('@/views/prove/StopsView.vue'),
          meta: { stage: 'prove', title: 'Stops' },
        },
        {
          path: 'prove/settings',
          name: 'settings',
          component: () => import('@/views/prove/SettingsView.vue'),
          meta: { stage: 'prove', title: 'Settings' },
        },
        {
          path: 'buy/basket',
          name: 'basket',
          component: () => import('@/views/buy/BasketView.vue'),
          meta: { stage: 'buy', title: 'What to order' },
        },
        {
          path: 'buy/split',
          name: 'split',
          component: () => import('@/views/buy/SplitView.vue'),
          meta: { stage: 'buy', title: 'Where to buy' },
        },
        {
          path: 'buy/orders',
          name: 'orders',
          component: () => import('@/views/buy/OrdersView.vue'),
          meta: { stage: 'buy', title: 'Orders' },
        },
        {
          path: 'buy/arrivals',
          name: 'arrivals',
          component: () => import('@/views/buy/ArrivalsView.vue'),
          meta: { stage: 'buy', title: 'Arrivals' },
        },
        {
          path: 'buy/labels',
          name: 'labels',
          component: () => import('@/views/buy/LabelsView.vue'),
          meta: { stage: 'buy', title: 'Labels for bags' },
        },
        {
          path: 'buy/sheet',
          name: 'sheet',
          component: () => import('@/views/buy/SheetView.vue'),
          meta: { stage: 'buy', title: 'What came, on paper' },
        },
        {
          path: 'buy/claims',
          name: 'claims',
          component: () => import('@/views/buy/ClaimsView.vue'),
          meta: { stage: 'buy', title: 'Claims' },
        },
        {
          path: 'buy/prints',
          name: 'prints',
          component: () => import('@/views/buy/PrintsView.vue'),
          meta: { stage: 'buy', title: 'Prints' },
        },
        {
          path: 'buy/dates',
          name: 'dates',
          component: () => import('@/views/buy/DatesView.vue'),
          meta: { stage: 'buy', title: 'Dates' },
        },
        {
          path: 'buy/money',
          name: 'money',
          component: () => import('@/views/buy/MoneyView.vue'),
          meta: { stage: 'buy', title: 'Money' },
        },
        {
          path: 'build/tonight',
          name: 'tonight',
          component: () => import('@/views/build/TonightView.vue'),
          meta: { stage: 'build', title: 'Tonight' },
        },
        {
          path: 'build/ahead',
          name: 'ahead',
          component: () => import('@/views/build/AheadView.vue'),
          meta: { stage: 'build', title: 'Look ahead' },
        },
        {
          path: 'build/documents',
          name: 'documents',
          component: () => import('@/views/build/DocumentsView.vue'),
          meta: { stage: 'build', title: 'Documents' },
        },
        {
          path: 'build/bags',
          name: 'bags',
          component: () => import('@/views/build/BagsView.vue'),
          meta: { stage: 'build', title: 'Bags' },
        },
        {
          path: 'build/hours',
          name: 'hours',
          component: () => import('@/views/build/HoursView.vue'),
          meta: { stage: 'build', title: 'Hours' },
        },
        {
          path: 'build/open',
          name: 'open',
          component: () => import('@/views/build/OpenView.vue'),
          meta: { stage: 'build', title: 'Open items' },
        },
        {
          path: 'build/way-back/:need',
          name: 'way-back',
          component: () => import('@/views/build/WayBackView.vue'),
          meta: { stage: 'build', title: 'Way back' },
        },
        {
          path: 'build/derived',
          name: 'derived',
          component: () => import('@/views/build/DerivedView.vue'),
          meta: { stage: 'build', title: 'Steps from the model' },
        },
        {
          path: 'run/ladder',
          name: 'ladder',
          component: () => import('@/views/run/LadderView.vue'),
          meta: { stage: 'run', title: 'Power-up' },
        },
        {
          path: 'run/straight',
          name: 'straight',
          component: () => import('@/views/run/StraightView.vue'),
          meta: { stage: 'run', title: 'Straight' },
        },
        {
          path: 'run/tune',
          name: 'tune',
          component: () => import('@/views/run/TuneView.vue'),
          meta: { stage: 'run', title: 'Tune' },
        },
        {
          path: 'run/readings',
          name: 'readings',
          component: () => import('@/views/run/ReadingsView.vue'),
          meta: { stage: 'run', title: 'Readings' },
        },
        {
          path: 'run/jobs',
          name: 'jobs',
          component: () => import('@/views/run/JobsView.vue'),
          meta: { stage: 'run', title: 'Jobs' },
        },
        {
          path: 'run/upkeep',
          name: 'upkeep',
          component: () => import('@/views/run/UpkeepView.vue'),
          meta: { stage: 'run', title: 'Upkeep' },
        },
        {
          path: 'run/book',
          name: 'book',
          component: () => import('@/views/run/BookView.vue'),
          meta: { stage: 'run', title: 'Book' },
        },
        {
          path: 'build/bench',
          name: 'bench',
          component: () => import('@/views/build/BenchView.vue'),
          meta: { stage: 'build', title: 'Bench' },
        },
        {
          path: 'build/faults',
          name: 'faults',
          component: () => import('@/views/build/FaultsView.vue'),
          meta: { stage: 'build', title: 'Faults' },
        },
        {
          path: 'run',
          redirect: (to) => `/builds/${String(to.params.build)}/run/ladder`,
        },
      ],
    },
    {
      path: '/builds/:build(\\d+)/build/bench/:step',
      name: 'step',
      component: () => import('@/views/build/StepView.vue'),
      meta: { title: 'At the bench' },
    },
    {
      path: '/:rest(.*)*',
      name: 'lost',
      component: () => import('@/views/builds/LostView.vue'),
      meta: { open: true, title: 'Not here' },
    },
  ],
})

router.beforeEach(async (to) => {
  document.title = `${String(to.meta.title ?? '')} · Frugal Magpie`
  if (to.meta.open === true) {
    return true
  }
  try {
    const { user, visits } = await whoIsHere()
    // A visitor by a link sees that one build.
    const isVisit = visits !== null && (to.name === 'builds' || Number(to.params.build) === visits)

    return user !== null || isVisit || { name: 'sign-in', query: { then: to.fullPath } }
  } catch (error) {
    return !(error instanceof Problem && error.body.status === 401) || { name: 'sign-in' }
  }
})
