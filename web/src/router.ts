import { createRouter, createWebHistory } from 'vue-router'

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', redirect: { name: 'formulas' } },
    { path: '/formulas', name: 'formulas', component: () => import('@/screens/formulas/FormulasScreen.vue'), meta: { title: 'Formulas' } },
    { path: '/formulas/:id(\\d+|new)', name: 'formula', component: () => import('@/screens/formula/FormulaScreen.vue'), meta: { title: 'Formula' } },
    { path: '/formulas/:id(\\d+)/sheet', name: 'sheet', component: () => import('@/screens/sheet/SheetScreen.vue'), meta: { title: 'Weigh sheet' } },
    { path: '/formulas/:id(\\d+)/method', name: 'method', component: () => import('@/screens/method/MethodScreen.vue'), meta: { title: 'Method' } },
    { path: '/formulas/:id(\\d+)/method-sheet', name: 'method-sheet', component: () => import('@/screens/sheet/MethodSheetScreen.vue'), meta: { title: 'Method sheet' } },
    { path: '/welcome', name: 'welcome', component: () => import('@/screens/welcome/WelcomeScreen.vue'), meta: { title: 'Welcome' } },
    { path: '/take-in/:id(\\d+)?', name: 'take-in', component: () => import('@/screens/takein/TakeInScreen.vue'), meta: { title: 'Take in' } },
    { path: '/days', name: 'days', component: () => import('@/screens/days/DaysScreen.vue'), meta: { title: 'Days' } },
    { path: '/days/:id(\\d+|new)', name: 'day', component: () => import('@/screens/days/DayScreen.vue'), meta: { title: 'Day' } },
    { path: '/days/:id(\\d+)/wall', name: 'wall', component: () => import('@/screens/sheet/WallScreen.vue'), meta: { title: 'Wall sheet' } },
    { path: '/bench', name: 'bench', component: () => import('@/screens/bench/BenchScreen.vue'), meta: { title: 'Bench' } },
    { path: '/bench/:id([0-9a-f-]{36})', name: 'bake', component: () => import('@/screens/bench/BakeScreen.vue'), meta: { title: 'Bench', bare: true } },
    { path: '/book', name: 'book', component: () => import('@/screens/book/BookScreen.vue'), meta: { title: 'Book' } },
    { path: '/book/write', name: 'write-in', component: () => import('@/screens/book/WriteInScreen.vue'), meta: { title: 'Write in a bake' } },
    { path: '/book/beside', name: 'beside', component: () => import('@/screens/book/BesideScreen.vue'), meta: { title: 'Side by side' } },
    { path: '/book/learned/:id(\\d+)?', name: 'learned', component: () => import('@/screens/book/LearnedScreen.vue'), meta: { title: 'What it learned' } },
    { path: '/book/:id([0-9a-f-]{36})', name: 'book-bake', component: () => import('@/screens/book/BakeScreen.vue'), meta: { title: 'A bake' } },
    { path: '/taste/:id([0-9a-f-]{36})', name: 'taste', component: () => import('@/screens/book/TastingScreen.vue'), meta: { title: 'Tasted blind', bare: true } },
    { path: '/pans', name: 'pans', component: () => import('@/screens/pans/PansScreen.vue'), meta: { title: 'Pans' } },
    { path: '/pantry', name: 'pantry', component: () => import('@/screens/pantry/PantryScreen.vue'), meta: { title: 'Pantry' } },
    { path: '/kitchen', name: 'kitchen', component: () => import('@/screens/kitchen/KitchenScreen.vue'), meta: { title: 'Kitchen' } },
    { path: '/:rest(.*)*', component: () => import('@/screens/NotHere.vue'), meta: { title: 'Not here' } },
  ],
})
router.afterEach((to) => {
  document.title = `${String(to.meta.title)} · Pan Count`
})
